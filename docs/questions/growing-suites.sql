-- Classes by what they take more now than in the first of the last 20 runs of main: medians of 10 runs each.
select class_name,
  percentile_cont(0.5) within group (order by case when newest <= 10 then total_ms end) as now_ms,
  percentile_cont(0.5) within group (order by case when newest > 10 then total_ms end) as before_ms
from (
  select t.class_name, r.newest, sum(t.duration_ms) as total_ms
  from tests t
    join (
      select run_id, row_number() over (order by started desc) as newest from runs where branch = 'main'
    ) r on r.run_id = t.run_id and r.newest <= 20
  where t.class_name is not null
  group by t.class_name, r.newest
) totals
group by class_name
having count(*) = 20
order by percentile_cont(0.5) within group (order by case when newest <= 10 then total_ms end)
  - percentile_cont(0.5) within group (order by case when newest > 10 then total_ms end) desc, class_name
limit 20
