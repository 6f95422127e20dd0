/** Names of the technologies. */
export { KIND_NAMES } from "../../app/facts.generated";
