import { MigrationInterface, QueryRunner } from 'typeorm';

const CUT_REASONS = [
  ['numberStartsAgain', 'its page numbers start again'],
  ['numberStartsAtOne', 'it is numbered page 1'],
  ['otherCount', 'its pages are numbered to another count'],
  ['lastOfItsNumbers', 'the page before is the last of its numbers'],
  ['otherRef', 'it names another number'],
  ['otherDate', 'it has another date'],
  ['title', 'a title stands at its head'],
  ['largeHead', 'it has a letterhead'],
  ['address', 'it has an address at its head'],
  ['salutation', 'it greets somebody'],
  ['beginnings', 'it looks like a first page'],
  ['endingsAndBeginnings', 'the page before ends a paper, and this one looks like a first page'],
  ['closingBefore', 'the page before ends with a closing'],
  ['totalBefore', 'the page before ends with a total'],
  ['termsBefore', 'the page before ends with terms of payment'],
  ['totalAgain', 'both pages have a total'],
  ['closingAgain', 'both pages have a closing'],
  ['pageHalfEmpty', 'the page before is only partly filled'],
  ['sizeChanges', 'the paper has another size'],
  ['slip', 'it is a slip'],
  ['bothSlips', 'both are slips'],
  ['otherHead', 'its head is another one'],
  ['otherFoot', 'its foot is another one'],
  ['fewSharedNames', 'other names and numbers stand on it'],
  ['languageChanges', 'it is in another language'],
  ['letterChanges', 'its letters have another size'],
  ['marginChanges', 'its margin is another one'],
  ['blankBetween', 'a blank page lies between'],
  ['blankBackBetween', 'the sheet before has a blank back'],
  ['numberFollows', 'its page number follows'],
  ['numberIsLater', 'its page number is a later one'],
  ['notLastOfItsNumbers', 'the page before is not the last of its numbers'],
  ['sameRef', 'both name the same number'],
  ['sameDate', 'both have the same date'],
  ['noBeginning', 'nothing on it looks like a first page'],
  ['noEndingNoBeginning', 'nothing looks like an end or a beginning'],
  ['pageFull', 'the page before is full'],
  ['sentenceGoesOn', 'a sentence goes on'],
  ['sentenceOpens', 'it begins within a sentence'],
  ['sentenceOpenBefore', 'the page before ends within a sentence'],
  ['tableGoesOn', 'a table goes on'],
  ['carriedOver', 'a sum is carried over'],
  ['saysSoOnce', 'one of the pages says that it goes on'],
  ['sameHead', 'both have the same head'],
  ['sameFoot', 'both have the same foot'],
  ['sharedNames', 'the same names and numbers stand on it'],
  ['hardlyAnyText', 'there is hardly any text on it'],
  ['onBack', 'it is the back of the sheet before'],
  ['divider', 'a divider sheet lies before it'],
];

/**
 * What facts say is kept typed beside its text: days, money in whole smallest units of its currency, rates. What was kept as a
 * sentence becomes a code.
 */
export class TypedFacts1767000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `alter table fact add column day date, add column units bigint, add column digits smallint, add column currency text,
         add column rate numeric(6, 3), add column amount numeric generated always as (units * power(10::numeric, -digits)) stored`,
    );
    await runner.query(
      `update fact set day = value::date
       where name in ('date', 'dueDate') and value ~ '^(19|20)\\d\\d-(0[1-9]|1[0-2])-(0[1-9]|[12]\\d|3[01])$'
         and substring(value, 9)::int <= extract(day from make_date(substring(value, 1, 4)::int, substring(value, 6, 2)::int, 1) + interval '1 month - 1 day')`,
    );
    await runner.query(
      `update fact set units = round(value::numeric * 100), digits = 2,
         currency = (select c.value from fact c where c.document_id = fact.document_id and c.name = 'currency')
       where name in ('net', 'tax', 'total', 'amountDue') and value ~ '^-?\\d{1,13}(\\.\\d{1,4})?$'`,
    );
    await runner.query(
      `update fact set rate = value::numeric where name = 'taxRate' and value ~ '^\\d{1,3}(\\.\\d{1,3})?$'`,
    );
    await runner.query('drop index fact_total');
    await runner.query(`create index fact_amount on fact (name, amount) where amount is not null`);
    await runner.query(`create index fact_day on fact (name, day) where day is not null`);
    await runner.query(
      `alter table fact alter column why type jsonb
         using case when why is not null then jsonb_build_object('code', 'as-told', 'text', why) end`,
    );
    await runner.query(
      `update document set checks = (
         select jsonb_agg(jsonb_build_object('code', 'iban', 'iban', replace(substring(said from 'IBAN (.*) do not fit'), ' ', '')))
         from jsonb_array_elements_text(checks) said where said like '%IBAN % do not fit%'
       ) where checks <> '[]'`,
    );
    await runner.query(`update document set checks = '[]' where checks is null`);
    await runner.query(
      `update page set cut_why = coalesce((
         select jsonb_agg(code order by place) from jsonb_array_elements_text(cut_why) with ordinality as told (said, place)
         join unnest($1::text[], $2::text[]) as known (code, sentence) on sentence = said
       ), '[]') where cut_why <> '[]'`,
      [CUT_REASONS.map(([code]) => code), CUT_REASONS.map(([, sentence]) => sentence)],
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      `update page set cut_why = coalesce((
         select jsonb_agg(sentence order by place) from jsonb_array_elements_text(cut_why) with ordinality as told (said, place)
         join unnest($1::text[], $2::text[]) as known (code, sentence) on code = said
       ), '[]') where cut_why <> '[]'`,
      [CUT_REASONS.map(([code]) => code), CUT_REASONS.map(([, sentence]) => sentence)],
    );
    await runner.query(`update document set checks = '[]'`);
    await runner.query(`alter table fact alter column why type text using why->>'text'`);
    await runner.query('drop index fact_amount, fact_day');
    await runner.query(
      'alter table fact drop column amount, drop column day, drop column units, drop column digits, drop column currency, drop column rate',
    );
    await runner.query(`create index fact_total on fact ((value::numeric)) where name = 'total'`);
  }
}
