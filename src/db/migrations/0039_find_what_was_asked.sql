-- Today says when somebody was last reminded or asked, of the last days only: found without the mails of years.
create index messages_reminding on messages (business_id, created_at) where kind = 'reminder';
create index messages_asking on messages (business_id, created_at) where kind in ('charge-refused', 'part-due', 'card-asked', 'own-page');
