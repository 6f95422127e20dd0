/** The page's title: what is looked at, whose it is, and the product. */
export const PRODUCT = "Zesty Glass";

export function pageTitle(heading: string, whose: string): string {
  const parts = [heading, whose].map((x) => x.replace(/\s+/g, " ").trim()).filter(Boolean);
  return [...new Set(parts), PRODUCT].join(" · ");
}
