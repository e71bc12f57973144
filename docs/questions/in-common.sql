-- What failing tests of main have in common: owner, tags or class, with how often tests with it fail.
select what, having_it, sum(failed) as failed, count(*) as ran, 100.0 * sum(failed) / count(*) as percent
from (
  select 'owner' as what, owner as having_it, case when needs_attention then 1 else 0 end as failed
  from tests where branch = 'main'
  union all
  select 'tags', tags, case when needs_attention then 1 else 0 end
  from tests where branch = 'main'
  union all
  select 'class', class_name, case when needs_attention then 1 else 0 end
  from tests where branch = 'main'
) marks
where having_it is not null and having_it <> ''
group by what, having_it
having sum(failed) > 0
order by 100.0 * sum(failed) / count(*) desc, what, having_it
limit 20
