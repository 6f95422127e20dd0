/** A page to print and leave: its head with the way back, which paper does not show. */
import { Printer } from "lucide-react";
import type { ReactElement, ReactNode } from "react";
import { Link } from "react-router";

import { Head } from "../../app/Shell";
import { say } from "../../app/language";

export function Printed({
  title,
  sub,
  back,
  wide = false,
  children,
}: {
  title: string;
  sub: string;
  back: string;
  wide?: boolean;
  children: ReactNode;
}): ReactElement {
  return (
    <div className="screen plain">
      <div className="print:hidden">
        <Head title={title} {...(sub === "" ? {} : { sub })}>
          <Link className="key bare" to={back}>
            {say("Back")}
          </Link>
          <button className="key" onClick={() => window.print()}>
            <Printer size={20} aria-hidden="true" /> {say("Print it")}
          </button>
        </Head>
      </div>
      <main className="min-h-0">
        <div
          className="h-full scroll px-8 pb-10 print:p-0 print:overflow-visible"
          tabIndex={0}
          role="group"
          aria-label={title}
        >
          <div className={`${wide ? "max-w-[1040px]" : "max-w-[760px]"} mx-auto pt-4`}>
            {children}
          </div>
        </div>
      </main>
    </div>
  );
}
