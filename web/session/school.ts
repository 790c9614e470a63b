import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { readSchool, type School } from '#contract/school';
import { call } from './api.ts';

export const useSchool = defineStore('school', () => {
  const school = shallowRef<School>();

  async function load(): Promise<School> {
    return (school.value ??= await call(readSchool));
  }

  async function reload(): Promise<void> {
    school.value = await call(readSchool);
  }

  const isSample = async (): Promise<boolean> => ((await load().catch(() => undefined))?.samplePeople.length ?? 0) > 0;

  return { school, load, reload, isSample };
});
