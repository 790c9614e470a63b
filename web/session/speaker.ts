import { ref } from 'vue';

/*
 * For whom this page speaks. It is one person for as long as the page lives: what somebody began can never be stored under the name
 * of whoever signs in after them, in this tab or another one.
 */

let person: string | undefined;
const other = ref(false);

/** The person whom requests are made for; undefined before anybody has signed in. */
export const speaker = (): string | undefined => person;

/** @returns false where the page speaks for somebody else already: only a new page can speak for this one */
export function speakFor(id: string): boolean {
  person ??= id;
  return person === id;
}

/** Somebody else is signed in in this browser now. */
export const isOther = other;
export const tellOther = (): void => void (other.value = true);

/** For tests, which have no new pages. */
export function speakForNobody(): void {
  person = undefined;
  other.value = false;
}
