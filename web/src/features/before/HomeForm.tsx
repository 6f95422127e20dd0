/** Customer and home: what the rules need to know, in the order one asks for it. */
import { NEW_HOME } from "./newHome";
import type { ReactElement, ReactNode } from "react";

import type { Customer, Home } from "../../api/types";
import { Fold } from "../../ui/Fold";
import { NumberField, Seg, TextField, YES_NO } from "../../ui/fields";
import { QuantityField } from "../../ui/QuantityField";
import { InPlaceForm } from "../in-place/InPlaceForm";
import { LivedIn } from "./LivedIn";
import { Goals } from "./Goals";
import { Wishes } from "./Wishes";
import { spoken, say } from "../../app/language";

const SOURCES = spoken([
  ["city", "Town main"],
  ["well_drilled", "Drilled well"],
  ["well_dug", "Dug well"],
  ["spring", "Spring"],
  ["lake", "Lake"],
  ["cistern", "Cistern"],
] as const);
const CARE = spoken([
  ["infant", "An infant"],
  ["pregnancy", "Pregnancy"],
  ["weak_immunity", "Weakened immunity"],
  ["low_sodium", "Low-sodium diet"],
  ["low_potassium", "Low-potassium diet"],
  ["dialysis", "Dialysis at home"],
  ["aquarium", "An aquarium"],
] as const);

interface Props {
  customer: Customer;
  home: Home;
  onCustomer: (c: Customer) => void;
  onHome: (h: Home) => void;
  fresh?: boolean;
}

function Group({
  title,
  children,
}: {
  title: string;
  children: ReactElement | (ReactElement | null)[];
}): ReactElement {
  return (
    <fieldset className="border-0 border-t border-rule pt-3 pb-5 m-0 px-0">
      <legend className="float-left w-full mb-3">
        <h2 className="text-[20px]">{title}</h2>
      </legend>
      <Grid>{children}</Grid>
    </fieldset>
  );
}

function Grid({ children }: { children: ReactNode }): ReactElement {
  return (
    <div
      className={
        "clear-both grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] items-start gap-x-5 " +
        "gap-y-4"
      }
    >
      {children}
    </div>
  );
}

/** One part of the form: the home, and how a part of it is changed. */
interface Part {
  home: Home;
  set: (part: Partial<Home>) => void;
}

/** What a stage wants to know, asked on the line by the stage that needs it, and kept here. */
function AskedLater({ home, set }: Part): ReactElement {
  const told: unknown[] = [
    home.headroom_in,
    home.floor_ok,
    home.pipe_material || null,
    home.brine_forbidden,
    home.service_line || null,
  ];
  if (isWell(home)) told.push(home.cut_in_psi, home.cut_out_psi, home.low_yield);
  const known = told.filter((x) => x != null).length;
  return (
    <Fold
      className="border-t border-rule pt-2 pb-4"
      title={say("Asked when a stage needs it")}
      sub={
        say("height, floor, pipe, brine, supply’s line{x}: ", { x: isWell(home) ? ", pump" : "" }) +
        say("{known} of {length} known", { known, length: told.length })
      }
    >
      <Grid>
        <QuantityField
          label={say("Free height")}
          unit="in"
          value={home.headroom_in ?? null}
          onCommit={(headroom_in) => set({ headroom_in })}
        />
        <Seg
          label={say("The floor carries a heavy unit")}
          value={home.floor_ok ?? null}
          choices={YES_NO}
          onChange={(floor_ok) => set({ floor_ok })}
        />
        <TextField
          label={say("The house’s pipe")}
          value={home.pipe_material}
          hint={say("copper, galvanized steel, plastic, lead")}
          onCommit={(pipe_material) => set({ pipe_material })}
        />
        <Seg
          label={say("Brine forbidden by the place")}
          value={home.brine_forbidden ?? null}
          choices={YES_NO}
          onChange={(brine_forbidden) => set({ brine_forbidden })}
        />
        <TextField
          label={say("Service line")}
          value={home.service_line}
          hint={say("lead, galvanized, copper, plastic")}
          onCommit={(service_line) => set({ service_line })}
        />
        {isWell(home) ? <OfThePump home={home} set={set} /> : null}
      </Grid>
    </Fold>
  );
}

function Place({ home, set }: Part): ReactElement {
  return (
    <Group title={say("The place for equipment")}>
      <Seg
        label={say("Drain within reach")}
        value={home.drain ?? null}
        choices={YES_NO}
        onChange={(drain) => set({ drain })}
      />
      <Seg
        label={say("Outlet within reach")}
        value={home.socket ?? null}
        choices={YES_NO}
        onChange={(socket) => set({ socket })}
      />
      <Seg
        label={say("Septic system")}
        value={home.septic ?? null}
        choices={YES_NO}
        onChange={(septic) => set({ septic })}
      />
      <Seg
        label={say("May freeze there")}
        value={home.freezing ?? null}
        choices={YES_NO}
        onChange={(freezing) => set({ freezing })}
      />
      <Seg
        label={say("Tenant, may not plumb")}
        value={home.tenant}
        choices={[
          { value: true, name: say("Yes") },
          { value: false, name: say("No") },
        ]}
        onChange={(tenant) => set({ tenant })}
      />
    </Group>
  );
}

function Who({
  customer,
  home,
  onCustomer,
  set,
  fresh,
}: Part & Pick<Props, "customer" | "onCustomer" | "fresh">): ReactElement {
  return (
    <Group title={say("Who and where")}>
      <TextField
        label={say("Customer’s name")}
        value={customer.name}
        required
        first={fresh === true}
        live={fresh === true}
        onCommit={(name) => onCustomer({ ...customer, name })}
      />
      <TextField
        label={say("House")}
        value={home.name}
        hint={say("Street and number, or how you call it")}
        onCommit={(name) => set({ name })}
      />
      <TextField label={say("Place")} value={home.place} onCommit={(place) => set({ place })} />
      <TextField
        label={say("Phone")}
        type="tel"
        value={customer.phone}
        onCommit={(phone) => onCustomer({ ...customer, phone })}
      />
      <TextField
        label={say("E-mail")}
        type="email"
        value={customer.email}
        onCommit={(email) => onCustomer({ ...customer, email })}
      />
    </Group>
  );
}

function SourceOf({ home, set }: Part): ReactElement {
  return (
    <fieldset className="border-0 border-t border-rule pt-3 pb-5 m-0 px-0">
      <legend className="float-left w-full mb-3">
        <h2 className="text-[20px]">{say("The water comes from")}</h2>
      </legend>
      <div className="clear-both flex flex-wrap gap-2" role="radiogroup" aria-label={say("Source")}>
        {SOURCES.map(([s, name]) => (
          <button
            key={s}
            type="button"
            role="radio"
            aria-checked={home.source === s}
            className="key"
            style={
              home.source === s ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : undefined
            }
            onClick={() => set({ source: s })}
          >
            {name}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

function Household({ home, set }: Part): ReactElement {
  return (
    <Group title={say("The household")}>
      <NumberField
        label={say("People")}
        value={home.people}
        max={500}
        onCommit={(n) => set({ people: n ?? 0 })}
      />
      <NumberField
        label={say("Bathrooms")}
        value={home.bathrooms}
        max={100}
        hint={say("halves count: 1.5, 2.5")}
        onCommit={(n) => set({ bathrooms: n ?? 0 })}
      />
      <NumberField
        label={say("Days lived in, a year")}
        unit="days"
        value={home.occupied_days}
        max={366}
        onCommit={(n) => set({ occupied_days: n ?? 365.25 })}
      />
      <LivedIn home={home} set={set} />
      <QuantityField
        label={say("Use from the water bill")}
        unit="gal/day"
        value={home.bill_gal_day ?? null}
        hint={say("indoor use; wins over people × setting")}
        onCommit={(bill_gal_day) => set({ bill_gal_day })}
      />
    </Group>
  );
}

const TABLE_ENDS = 5; // bathrooms; beyond, the building's designer or its pipe says the peak
const larger = (home: Home): boolean =>
  home.bathrooms > TABLE_ENDS || home.told_peak_gpm != null || home.pipe_in != null;

/** What says the peak flow of a building that is larger than a home. */
function Larger({ home, set }: Part): ReactElement {
  return (
    <>
      <QuantityField
        label={say("Peak flow, as its designer says")}
        unit={say("gpm, a building’s")}
        hint={say("wins over the number of bathrooms")}
        value={home.told_peak_gpm ?? null}
        onCommit={(told_peak_gpm) => set({ told_peak_gpm })}
      />
      <QuantityField
        label={say("Pipe that enters, inside width")}
        unit="in"
        hint={say("says the peak where nobody else does")}
        max={8}
        value={home.pipe_in ?? null}
        onCommit={(pipe_in) => set({ pipe_in })}
      />
    </>
  );
}

const isWell = (home: Home): boolean =>
  home.source === "well_drilled" || home.source === "well_dug" || home.source === "spring";

/** The switch of a well's tank, and whether the well ever ran low. */
function OfThePump({ home, set }: Part): ReactElement {
  return (
    <>
      <QuantityField
        label={say("The pump starts at")}
        unit="psi"
        hint={say("the tank’s switch, on its label")}
        value={home.cut_in_psi ?? null}
        onCommit={(cut_in_psi) => set({ cut_in_psi })}
      />
      <QuantityField
        label={say("The pump stops at")}
        unit="psi"
        value={home.cut_out_psi ?? null}
        onCommit={(cut_out_psi) => set({ cut_out_psi })}
      />
      <Seg
        label={say("The well ran low")}
        value={home.low_yield ?? null}
        choices={YES_NO}
        onChange={(low_yield) => set({ low_yield })}
      />
    </>
  );
}

function FlowAndPressure({ home, set }: Part): ReactElement {
  return (
    <Group title={say("Flow and pressure")}>
      {larger(home) ? <Larger home={home} set={set} /> : null}
      <QuantityField
        label={say("Measured flow")}
        unit="gpm"
        value={home.flow_gpm ?? null}
        onCommit={(flow_gpm) => set({ flow_gpm })}
      />
      <Seg
        label={say("Measured full bore")}
        value={home.flow_full_bore}
        choices={[
          { value: true, name: say("Yes") },
          { value: false, name: say("No") },
        ]}
        onChange={(flow_full_bore) => set({ flow_full_bore })}
      />
      <QuantityField
        label={say("Static pressure")}
        unit="psi"
        value={home.static_psi ?? null}
        onCommit={(static_psi) => set({ static_psi })}
      />
      <QuantityField
        label={say("Running pressure")}
        unit="psi"
        value={home.running_psi ?? null}
        hint={say("with a tap open")}
        onCommit={(running_psi) => set({ running_psi })}
      />
      {isWell(home) ? (
        <QuantityField
          label={say("The pump delivers")}
          unit="gpm"
          value={home.pump_gpm ?? null}
          onCommit={(pump_gpm) => set({ pump_gpm })}
        />
      ) : null}
    </Group>
  );
}

/** A price as it is kept: to a hundredth of a cent a 1,000 gal. */
const priced = (n: number | null): string | null =>
  n === null ? null : String(Number(n.toFixed(4)));

function Costs({ home, set }: Part): ReactElement {
  return (
    <Group title={say("What water costs today")}>
      <QuantityField
        label={say("Water")}
        unit={say("a 1,000 gal")}
        value={home.water_price == null ? null : Number(home.water_price)}
        max={10000}
        onCommit={(n) => set({ water_price: priced(n) })}
      />
      <QuantityField
        label={say("Sewer")}
        unit={say("a 1,000 gal")}
        value={home.sewer_price == null ? null : Number(home.sewer_price)}
        max={10000}
        onCommit={(n) => set({ sewer_price: priced(n) })}
      />
      <NumberField
        label={say("Bottled water bought")}
        unit={say("a month")}
        value={Number(home.bottled_month)}
        max={100000}
        onCommit={(n) => set({ bottled_month: String(n ?? 0) })}
      />
      <NumberField
        label={say("Soap and detergent")}
        unit={say("a month")}
        value={Number(home.soap_month)}
        max={100000}
        onCommit={(n) => set({ soap_month: String(n ?? 0) })}
      />
    </Group>
  );
}

/** Who lives there, as far as it changes the advice. */
function CareFor({ home, set }: Part): ReactElement {
  return (
    <fieldset className="border-0 border-t border-rule pt-3 pb-5 m-0 px-0">
      <legend className="float-left w-full mb-1">
        <h2 className="text-[20px]">{say("Asked only with consent, and no more than needed")}</h2>
      </legend>
      <div className="clear-both flex flex-wrap gap-2 pt-2">
        <button
          type="button"
          className="key"
          aria-pressed={home.care.consent}
          style={
            home.care.consent ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : undefined
          }
          onClick={() =>
            set({ care: home.care.consent ? NEW_HOME.care : { ...home.care, consent: true } })
          }
        >
          {home.care.consent ? say("Consent given") : say("Ask for consent")}
        </button>
        {home.care.consent &&
          CARE.map(([k, name]) => (
            <button
              key={k}
              type="button"
              className="key"
              aria-pressed={home.care[k]}
              style={
                home.care[k] ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : undefined
              }
              onClick={() => set({ care: { ...home.care, [k]: !home.care[k] } })}
            >
              {name}
            </button>
          ))}
      </div>
    </fieldset>
  );
}

export function HomeForm({
  customer,
  home,
  onCustomer,
  onHome,
  fresh = false,
}: Props): ReactElement {
  const set = (part: Partial<Home>): void => onHome({ ...home, ...part });
  return (
    <div>
      <Who customer={customer} home={home} onCustomer={onCustomer} set={set} fresh={fresh} />
      <SourceOf home={home} set={set} />
      <Household home={home} set={set} />
      <FlowAndPressure home={home} set={set} />
      <Place home={home} set={set} />
      <AskedLater home={home} set={set} />
      {!fresh && <InPlaceForm home={home} set={set} />}
      <Wishes home={home} set={set} />
      <Goals home={home} set={set} />
      <Costs home={home} set={set} />
      <CareFor home={home} set={set} />
    </div>
  );
}
