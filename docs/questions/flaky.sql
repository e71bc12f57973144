-- Tests of main that went wrong and did not within their last 20 runs, those that changed most often first.
select test, count(*) as runs, sum(went_wrong) as went_wrong, sum(changed) as changes
from (
  select test, went_wrong,
    case when went_wrong <> lag(went_wrong) over (partition by test order by run_started) then 1 else 0 end as changed
  from (
    select test, run_started, case when needs_attention or flaky then 1 else 0 end as went_wrong,
      row_number() over (partition by test order by run_started desc) as newest
    from tests
    where branch = 'main'
  ) recent
  where newest <= 20
) marks
group by test
having sum(went_wrong) > 0 and sum(went_wrong) < count(*)
order by sum(changed) desc, sum(went_wrong) desc, test
limit 20
