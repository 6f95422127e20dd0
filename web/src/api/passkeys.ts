/**
 * Passkeys: what the browser asks of a device, between two requests. The library is fetched when a
 * passkey is used, and not before.
 */
import { say } from "../app/language";
import { api, data, Failed } from "./client";
import type { Me } from "./types";

/** Keys are bound to a name over HTTPS, or to localhost; an address in figures has none. */
export function canUsePasskeys(): boolean {
  const figures = /^[\d.]+$|:/.test(location.hostname);
  return window.isSecureContext && "PublicKeyCredential" in window && !figures;
}

/** What the device was asked and did not do, in words. */
function refused(): Failed {
  return new Failed({
    type: "about:blank",
    status: 0,
    code: "passkey.device",
    title: say("The device did not sign."),
    where: "",
    remedy: say("Try again, and confirm it with your finger, face or PIN."),
    changed: [],
    by: "",
    version: null,
    request: "",
    also: [],
  });
}

type Json = Record<string, unknown>;

/** Have the device do its part; what it refuses is told in words. */
async function onDevice(
  ask: (library: typeof import("@simplewebauthn/browser")) => Promise<unknown>,
): Promise<Json> {
  const library = await import("@simplewebauthn/browser");
  try {
    return (await ask(library)) as Json;
  } catch {
    throw refused();
  }
}

export async function addPasskey(name: string, password: string): Promise<unknown> {
  const { options } = await data(api.POST("/api/session/passkeys/options", { body: { password } }));
  const credential = await onDevice(({ startRegistration }) =>
    startRegistration({ optionsJSON: options as never }),
  );
  return data(api.POST("/api/session/passkeys", { body: { name, credential } }));
}

export async function enterByPasskey(): Promise<Me> {
  const { options } = await data(api.POST("/api/session/passkey/options"));
  const credential = await onDevice(({ startAuthentication }) =>
    startAuthentication({ optionsJSON: options as never }),
  );
  return data(api.POST("/api/session/passkey", { body: { credential } }));
}
