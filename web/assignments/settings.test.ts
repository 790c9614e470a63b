// @vitest-environment happy-dom
import { PLAIN_MARKING } from '#core/grading';
import type { AssignmentOverview, Question } from '#contract/assignments';
import { describe, expect, it } from 'vitest';
import { mountInApp } from '../testing/mount.ts';
import AssignmentFields from './AssignmentFields.vue';
import QuestionsEditor from './QuestionsEditor.vue';

const overview: AssignmentOverview = {
  ...{
    id: 'a',
    title: 'A walk',
    course: 'C',
    courseId: 'c',
    moderation: null,
    dueAt: null,
    brief: '',
    budget: 30,
    open: false,
    anonymous: false,
  },
  ...{ term: null, category: '', weight: null, extra: false, attempts: null, formats: null, terms: [] },
  ...{ marking: PLAIN_MARKING, questions: [], handouts: [], rows: [] },
};
const question: Question = { id: 'q', kind: 'short', prompt: 'How high?', choices: [], points: 100 };

describe('what is being typed stays, whatever else has been saved meanwhile', () => {
  it('in the instructions, while the title is', async () => {
    const wrapper = mountInApp(AssignmentFields, { overview });
    const instructions = wrapper.get<HTMLTextAreaElement>('textarea');
    await instructions.setValue('Write about');
    await wrapper.setProps({ overview: { ...overview, title: 'A longer walk' } });
    expect(instructions.element.value).toBe('Write about');
    expect(wrapper.get<HTMLInputElement>('input').element.value).toBe('A longer walk');
  });

  it('in a question, and what nobody touched follows', async () => {
    const wrapper = mountInApp(QuestionsEditor, { assignment: 'a', questions: [question] });
    const prompt = () => wrapper.get<HTMLTextAreaElement>('textarea').element.value;
    await wrapper.setProps({ questions: [{ ...question, prompt: 'How low?' }] });
    expect(prompt()).toBe('How low?');
    await wrapper.get('textarea').setValue('How deep?');
    await wrapper.setProps({ questions: [{ ...question, prompt: 'How low?' }] });
    expect(prompt()).toBe('How deep?');
  });
});
