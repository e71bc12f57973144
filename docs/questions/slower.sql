-- Tests whose median over the last 10 runs of main is half as much again as over the 10 before.
with recent as (
  select run_id, started, row_number() over (order by started desc, run desc) as newest from runs where branch = 'main'
)
select test, now_ms, before_ms
from (
  select t.test, count(*) as passes,
    percentile_cont(0.5) within group (order by case when r.newest <= 10 then t.duration_ms end) as now_ms,
    percentile_cont(0.5) within group (order by case when r.newest > 10 then t.duration_ms end) as before_ms
  from tests t
    join recent r on r.run_id = t.run_id and r.started = t.run_started
  where r.newest <= 20 and t.outcome = 'passed'
  group by t.test
) medians
where passes >= 15 and now_ms > 1.5 * before_ms
order by now_ms - before_ms desc, test
limit 20
