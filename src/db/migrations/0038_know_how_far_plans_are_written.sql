-- How far a plan's dates are written down, where more follow: sums over a longer time find the plans that go beyond it without looking
-- at the others.
alter table plans add column written_to date;
update plans set written_to = written.last
from (select business_id, plan_id, max(nominal) as last,
    count(*) filter (where state in ('upcoming', 'charging', 'billed', 'refused', 'charged', 'otherwise')) as counted
  from charges where part = 'period' group by business_id, plan_id) as written
where plans.business_id = written.business_id and plans.id = written.plan_id and plans.kind = 'membership' and plans.state = 'active'
  and (plans.planned_count is null or plans.planned_count > written.counted);
create index plans_beyond on plans (business_id, written_to) where state = 'active' and written_to is not null;
