/** Start a visit: name, source and complaint first; the rest can wait. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";
import { useNavigate } from "react-router";

import { api, data } from "../../api/client";
import type { Complaint, ContactCard, Customer, Home } from "../../api/types";
import { upload } from "../../api/upload";
import { Head, Ledge } from "../../app/Shell";
import { newId } from "../../app/names";
import { FileKey } from "../../ui/FileKey";
import { Trouble } from "../../ui/Trouble";
import { Complaints } from "../before/Complaints";
import { HomeForm } from "../before/HomeForm";
import { NEW_HOME, NOBODY } from "../before/newHome";
import { KnownHomes } from "./KnownHomes";
import { say } from "../../app/language";

export function NewVisit(): ReactElement {
  const [id] = useState(newId);
  const [customer, setCustomer] = useState<Customer>(NOBODY);
  const [home, setHome] = useState<Home>(NEW_HOME);
  const [complaints, setComplaints] = useState<Complaint[]>([]);
  const [cards, setCards] = useState(0);
  const card = useMutation({
    mutationFn: (f: File) => upload<ContactCard>("/api/homes/contact", f, "text/vcard"),
    onSuccess: ({ name, phone, email, place }) => {
      setCustomer((c) => ({ ...c, name, phone, email }));
      if (place) setHome((h) => ({ ...h, place }));
      setCards(cards + 1);
    },
  });
  const navigate = useNavigate();
  const client = useQueryClient();
  const start = useMutation({
    mutationFn: () =>
      data(
        api.POST("/api/visits", {
          body: {
            id,
            customer,
            home: { ...home, name: home.name || customer.name },
            complaints,
            started_at: null,
          },
        }),
      ),
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: ["visits"] });
      void navigate(`/visits/${id}/test`);
    },
  });
  return (
    <div className="screen" style={{ gridTemplateRows: "64px minmax(0,1fr) 98px" }}>
      <Head title={say("A new visit")} />
      <main className="scroll px-8 pb-8">
        <div className="max-w-[980px] mx-auto pt-2">
          <h1 className="mb-4">{say("Who, where, and what bothers them")}</h1>
          <KnownHomes />
          <div className="pb-3 -mt-2">
            <FileKey
              label={say("A contact card of the customer")}
              accept=".vcf,text/vcard"
              words={say("From a contact card")}
              bare
              busy={card.isPending}
              onFile={(f) => card.mutate(f)}
            />
          </div>
          <Trouble error={card.error} />
          <HomeForm
            key={cards}
            customer={customer}
            home={home}
            onCustomer={setCustomer}
            onHome={setHome}
            fresh
          />
          <Complaints list={complaints} onChange={setComplaints} />
          <Trouble error={start.error} />
        </div>
      </main>
      <Ledge
        end={
          <button
            className="key go"
            style={{ minHeight: 48 }}
            disabled={start.isPending || !customer.name.trim()}
            onClick={() => start.mutate()}
          >
            {start.isPending ? say("Starting") : say("Start the visit")}
          </button>
        }
      />
    </div>
  );
}
