-- Classes by what they take more now than before: medians of the last 10 runs of main, and of the 10 before.
with recent as (
  select run_id, started, row_number() over (order by started desc, run desc) as newest from runs where branch = 'main'
)
select class_name, now_ms, before_ms
from (
  select class_name, count(*) as runs,
    percentile_cont(0.5) within group (order by case when newest <= 10 then total_ms end) as now_ms,
    percentile_cont(0.5) within group (order by case when newest > 10 then total_ms end) as before_ms
  from (
    select t.class_name, r.newest, sum(t.duration_ms) as total_ms
    from tests t
      join recent r on r.run_id = t.run_id and r.started = t.run_started
    where r.newest <= 20 and t.class_name is not null
    group by t.class_name, r.newest
  ) totals
  group by class_name
) medians
where runs = 20
order by now_ms - before_ms desc, class_name
limit 20
