-- One life of a charge: what was prose is a state, or a code beside it.

alter table charges drop constraint charges_state_known;
alter table charges
  -- Who decided it, how it was paid, or why it was not: a code with its values.
  add column note jsonb;
update charges set
  state = case
    when state = 'skipped' and words = 'the first period is free' then 'free'
    when state = 'skipped' and words like 'waived by %' then 'waived'
    when state = 'charged' and words like 'paid otherwise, %' then 'otherwise'
    else state
  end,
  note = case
    when words = 'the first period is free' then jsonb_build_object('code', 'first-period-free')
    when words = 'the plan was cancelled' then jsonb_build_object('code', 'plan-ended')
    when words = 'nothing was due any more' then jsonb_build_object('code', 'nothing-due')
    when words like 'waived by %' then jsonb_build_object('code', 'by-hand', 'by', substr(words, 11))
    when words like 'skipped by %' then jsonb_build_object('code', 'by-hand', 'by', substr(words, 12))
    when words like 'paid otherwise, %' then jsonb_build_object('code', 'paid',
      'how', jsonb_build_object('by', 'card', 'card', substr(words, 17)))
    when words <> '' then jsonb_build_object('code', 'not-billed', 'problem', words)
  end
  where words <> '';
alter table charges drop column words;
alter table charges add constraint charges_state_known check (state in (
  'upcoming', 'charging', 'billed', 'refused', 'charged', 'otherwise', 'free', 'waived', 'skipped'));
drop index charges_not_carried;
create index charges_not_carried on charges (business_id, charged_on, id)
  where state in ('charged', 'otherwise') and carried_at is null;
