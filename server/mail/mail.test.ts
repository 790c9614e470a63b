import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { SMTPServer } from 'smtp-server';
import { text } from 'node:stream/consumers';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Slip } from '../../contract/joining.ts';
import type { SentMail } from '../../contract/mail.ts';
import { purge } from '../purge.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { PASSWORD, startTestSchool, type TestSchool } from '../testing/school.ts';
import { mailerOf, readFolder, type Mailer } from './mailer.ts';
import { queueMail } from './queries.ts';
import { sendMails } from './send.ts';

const FROM = 'Fennick <school@fennick.example>';

/** The mail server of nodemailer's own family, which knows the protocol from the other side. */
class TestMailServer {
  readonly taken: { to: string[]; message: string }[] = [];
  readonly #server = new SMTPServer({
    ...{ authOptional: true, disabledCommands: ['STARTTLS'], logger: false },
    onRcptTo: ({ address }, _session, done) => {
      const code = { 'nobody@fennick.example': 550, 'full@fennick.example': 452 }[address];
      done(code ? Object.assign(new Error('Not now or never'), { responseCode: code }) : null);
    },
    onData: (stream, { envelope }, done) =>
      void text(stream).then((message) => {
        this.taken.push({ to: envelope.rcptTo.map(({ address }) => address), message });
        done();
      }),
  });

  async start(): Promise<string> {
    const listening = this.#server.listen(0, '127.0.0.1');
    await once(listening, 'listening');
    return `smtp://127.0.0.1:${(listening.address() as AddressInfo).port}`;
  }
  stop = (): Promise<void> => new Promise((resolve) => this.#server.close(resolve));
}

describe.each(bodies)('mail on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let mailer: Mailer;
  const post = new TestMailServer();
  const folder = mkdtempSync(path.join(tmpdir(), 'vivid-mail-'));

  beforeAll(async () => {
    test = await open();
    const mail = { server: await post.start(), from: FROM };
    mailer = mailerOf({ mail, dataFolder: folder });
    school = await startTestSchool(test.db, [], {
      mail,
      dataFolder: folder,
      address: 'https://margin.fennick.example',
    });
  });
  afterAll(async () => {
    mailer.stop();
    await school.stop();
    await test.remove();
    await post.stop();
    rmSync(folder, { recursive: true });
  });

  const messageTo = (address: string): string =>
    post.taken.find(({ to }) => to.includes(address))!.message.replace(/=\r\n/g, '');
  const rows = (): Promise<Record<string, unknown>[]> =>
    test.db.query('select address, body, try_at is null as over, sent_at is not null as sent, refused from mails');
  const invite = async (byMail = true): Promise<{ slips: Slip[]; mailed: number }> => {
    const people = [school.ids.author, school.ids.classmate];
    const { json } = await school.as.teacher.send('POST', `/courses/${school.course}/slips`, {
      body: { people, byMail },
    });
    return json as { slips: Slip[]; mailed: number };
  };

  it('invites those with an address, whose way in works once and is forgotten; the others get a slip', async () => {
    await test.db.query("update people set mail = 'author@fennick.example' where id = $1", [school.ids.author]);
    const { slips, mailed } = await invite();
    expect([slips.map(({ name }) => name), mailed]).toEqual([['The classmate'], 1]);
    await sendMails(test.db, mailer);
    const message = messageTo('author@fennick.example');
    expect(message).toContain(`From: ${FROM}`);
    expect(message).toContain('Subject: Your way into Here');
    const [, code] = /https:\/\/margin\.fennick\.example\/join\/([\w-]+)/.exec(message)!;
    expect(await rows()).toMatchObject([{ body: null, over: true, sent: true, refused: null }]);
    const join = () => school.as.nobody.send('POST', '/joining', { body: { code, password: PASSWORD } });
    expect([(await join()).status, (await join()).status]).toEqual([200, 409]);
    expect((await invite(false)).mailed).toBe(0);
  });

  it('invites a teacher by mail as well', async () => {
    const body = { name: 'Ottoline Baird', mail: 'ottoline@fennick.example' };
    const { json } = await school.as.teacher.send('POST', `/courses/${school.course}/teachers`, { body });
    expect(json).toEqual({ slip: null, mailed: true, invited: false });
    await sendMails(test.db, mailer);
    expect(messageTo(body.mail)).toContain('Hello Ottoline Baird,');
  });

  it('is held up by nothing: what is refused for good ends, what is refused for now is tried again later', async () => {
    for (const name of ['nobody', 'full', 'last'])
      await queueMail(test.db, {
        ...{
          person: school.ids.classmate,
          address: `${name}@fennick.example`,
          subject: 'News',
          body: 'There is news.',
        },
      });
    await sendMails(test.db, mailer);
    const of = async (name: string) => (await rows()).find(({ address }) => address === `${name}@fennick.example`);
    expect(await of('nobody')).toMatchObject({ over: true, sent: false, body: null });
    expect((await of('nobody'))!.refused).toContain('Not now or never');
    expect(await of('full')).toMatchObject({ over: false, sent: false, body: 'There is news.' });
    expect(await of('last')).toMatchObject({ over: true, sent: true, refused: null });
    // Seven pauses; then nobody tries any more.
    for (let time = 0; time < 9; time++) {
      await test.db.query('update mails set try_at = now() where try_at is not null and tries < 20');
      await sendMails(test.db, mailer);
    }
    expect(await of('full')).toMatchObject({ over: true, sent: false, body: null });
  });

  it('tries again when there is no server at all', async () => {
    const away = mailerOf({ mail: { server: 'smtp://127.0.0.1:1', from: FROM }, dataFolder: folder });
    await queueMail(test.db, {
      ...{ person: school.ids.author, address: 'a@fennick.example', subject: 'S', body: 'B' },
    });
    await sendMails(test.db, away);
    const [waiting] = (await rows()).filter(({ address }) => address === 'a@fennick.example');
    expect(waiting).toMatchObject({
      over: false,
      sent: false,
      refused: expect.stringContaining('ECONNREFUSED') as string,
    });
  });

  it('is put into a folder where there is no server, as files that any mail reader opens', async () => {
    const standIn = mailerOf({ mail: { server: undefined, from: FROM }, dataFolder: folder });
    await standIn.send({ to: 'zoë@fennick.example', subject: 'Töne', text: 'Drei Töne.\n' });
    const [message] = await readFolder(path.join(folder, 'mail'), 10);
    // RFC 5322: header fields, an empty line, the body; RFC 2047 for what is not ASCII.
    const [head, body] = message!.split('\r\n\r\n');
    expect(head).toMatch(/^Subject: =\?UTF-8\?Q\?T=C3=B6ne\?=$/m);
    expect(body).toContain('Drei T=C3=B6ne.');
  });

  it('is seen by the steward, without what it said, and goes after a month', async () => {
    expect((await school.as.teacher.send('GET', '/school/mails')).status).toBe(403);
    await test.db.query('update people set steward = true where id = $1', [school.ids.teacher]);
    const { text: answer, json } = await school.as.teacher.send('GET', '/school/mails');
    const { mails, standIn } = json as { mails: SentMail[]; standIn: string[] | null };
    expect(standIn).toBeNull();
    expect(mails).toHaveLength(6);
    expect(answer).not.toMatch(/join\/|There is news/);
    await test.db.query("update mails set made_at = now() - interval '31 days'");
    await purge(test.db);
    expect(await rows()).toMatchObject([{ address: 'a@fennick.example' }]);
  });
});
