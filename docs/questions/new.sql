-- What fails in the newest run of main and did not in the one before.
with recent as (
  select run_id, started, row_number() over (order by started desc, run desc) as newest from runs where branch = 'main'
)
select n.test, n.outcome, n.reason
from tests n
  join recent r on r.run_id = n.run_id and r.started = n.run_started and r.newest = 1
  left join (
    select t.test, t.needs_attention
    from tests t
      join recent p on p.run_id = t.run_id and p.started = t.run_started and p.newest = 2
  ) b on b.test = n.test
where n.needs_attention and (b.test is null or not b.needs_attention)
order by n.test
