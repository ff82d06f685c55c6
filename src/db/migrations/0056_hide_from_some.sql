-- Who packs sees names and addresses and no sums; customers or sums can be hidden from who only looks on.
alter table people
  drop constraint people_role_known,
  add constraint people_role_known check (role in ('owner', 'bookkeeper', 'clerk', 'packer', 'reader')),
  drop constraint people_extra_known,
  add constraint people_extra_known
    check (extra <@ array['ask', 'take', 'give-back', 'records', 'settings', 'no-customers', 'no-sums']);
alter table invitations
  drop constraint invitations_role_known,
  add constraint invitations_role_known check (role in ('owner', 'bookkeeper', 'clerk', 'packer', 'reader'));
