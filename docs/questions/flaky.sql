-- Tests that went wrong and did not within the last 20 runs of main, those that changed most often first.
with recent as (
  select run_id, started, row_number() over (order by started desc, run desc) as newest from runs where branch = 'main'
)
select test, count(*) as runs, sum(went_wrong) as runs_gone_wrong, sum(changed) as changes
from (
  select test, went_wrong,
    case when went_wrong <> lag(went_wrong) over (partition by test order by run_started, run) then 1 else 0 end as changed
  from (
    select t.test, t.run_started, t.run, case when t.needs_attention or t.flaky then 1 else 0 end as went_wrong
    from tests t
      join recent r on r.run_id = t.run_id and r.started = t.run_started
    where r.newest <= 20
  ) last_runs
) marks
group by test
having sum(went_wrong) > 0 and sum(went_wrong) < count(*)
order by sum(changed) desc, sum(went_wrong) desc, test
limit 20
