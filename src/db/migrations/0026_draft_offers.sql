-- What is edited of an offer that is placed already stands beside it until somebody keeps it: payers read what is placed.
alter table offers add column draft jsonb;
