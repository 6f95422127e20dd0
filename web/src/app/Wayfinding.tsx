/**
 * Where one is: the page's title, a way past the head for who goes by keys, and focus on the
 * heading of a view that was just opened.
 */
import { useEffect, useRef, type ReactElement } from "react";
import { useLocation } from "react-router";

import { pageTitle } from "./titles";
import { say, useLanguage } from "./language";

const VIEW = "view";
const FACING = /^\/visits\/[^/]+\/facing\//;
const heading = (): HTMLElement | null => document.querySelector("main h1, h1");

/** Nothing holds the focus: what had it went with the view before. */
const nowhere = (): boolean =>
  document.activeElement === null || document.activeElement === document.body;

/** The link past the head leads to the view's own part of the page. */
function marked(): void {
  const main = document.querySelector("main");
  if (!main || main.id === VIEW) return;
  main.id = VIEW;
  if (!main.hasAttribute("tabindex")) main.setAttribute("tabindex", "-1");
}

function goTo(there: HTMLElement): void {
  if (!there.hasAttribute("tabindex")) there.setAttribute("tabindex", "-1");
  there.focus({ preventScroll: true });
}

function toTheView(): void {
  const there = heading() ?? document.querySelector("main");
  if (there instanceof HTMLElement) goTo(there);
}

export function Wayfinding(): ReactElement | null {
  useLanguage(); // what stands outside of every view is said anew with the language
  const { pathname } = useLocation();
  const before = useRef(pathname);
  const opening = useRef(false);
  useEffect(() => {
    opening.current = before.current !== pathname;
    before.current = pathname;
  }, [pathname]);
  useEffect(() => {
    let frame = 0;
    const look = (): void => {
      marked();
      const h1 = heading();
      document.title = pageTitle(
        h1?.textContent ?? "",
        document.querySelector("header p b")?.textContent ?? "",
      );
      if (!opening.current || !h1) return;
      opening.current = false;
      if (nowhere()) goTo(h1);
    };
    const later = (): void => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(look);
    };
    const watch = new MutationObserver(later);
    watch.observe(document.body, { childList: true, subtree: true, characterData: true });
    later();
    return () => {
      watch.disconnect();
      cancelAnimationFrame(frame);
    };
  }, []);
  if (FACING.test(pathname)) return null; // a customer sees no keys of ours
  return (
    <a
      className="skip key"
      href={`#${VIEW}`}
      onClick={(e) => {
        e.preventDefault();
        toTheView();
      }}
    >
      {say("Skip to the view")}
    </a>
  );
}
