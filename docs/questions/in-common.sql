-- What tests that failed in the last 20 runs of main have in common: owner, tags or class, with how often tests with it failed.
with recent as (
  select run_id, started, row_number() over (order by started desc, run desc) as newest from runs where branch = 'main'
),
marks as (
  select t.owner, t.tags, t.class_name, case when t.needs_attention then 1 else 0 end as failed
  from tests t
    join recent r on r.run_id = t.run_id and r.started = t.run_started
  where r.newest <= 20
)
select what, having_it, sum(failed) as failures, count(*) as ran, round(100.0 * sum(failed) / count(*), 1) as percent
from (
  select 'owner' as what, owner as having_it, failed from marks
  union all
  select 'tags', tags, failed from marks
  union all
  select 'class', class_name, failed from marks
) each_mark
where having_it is not null and having_it <> ''
group by what, having_it
having sum(failed) > 0
order by 100.0 * sum(failed) / count(*) desc, what, having_it
limit 20
