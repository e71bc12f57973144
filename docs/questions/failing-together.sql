-- Classes that failed in the same runs: what touches one may affect the other.
select a.class_name, b.class_name as fails_with, count(distinct a.run_id) as runs
from (select distinct run_id, class_name from tests where needs_attention and class_name is not null) a
  join (select distinct run_id, class_name from tests where needs_attention and class_name is not null) b
    on b.run_id = a.run_id and b.class_name > a.class_name
group by a.class_name, b.class_name
having count(distinct a.run_id) > 1
order by count(distinct a.run_id) desc, a.class_name, b.class_name
limit 20
