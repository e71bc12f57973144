-- Tests of main whose median over the last 10 runs is half as much again as over the 10 before.
select test,
  percentile_cont(0.5) within group (order by case when newest <= 10 then duration_ms end) as now_ms,
  percentile_cont(0.5) within group (order by case when newest > 10 then duration_ms end) as before_ms
from (
  select test, duration_ms, row_number() over (partition by test order by run_started desc) as newest
  from tests
  where branch = 'main' and outcome = 'passed'
) recent
where newest <= 20
group by test
having count(*) = 20
  and percentile_cont(0.5) within group (order by case when newest <= 10 then duration_ms end)
    > 1.5 * percentile_cont(0.5) within group (order by case when newest > 10 then duration_ms end)
order by 2 desc, test
limit 20
