-- Tests of main that fail now, since when, and when they passed last.
select t.test, min(t.run_started) as fails_since, min(l.passed_last) as last_pass, count(*) as runs
from tests t
  join (
    select test, max(case when not needs_attention then run_started end) as passed_last
    from tests
    where branch = 'main'
    group by test
  ) l on l.test = t.test
where t.branch = 'main' and t.needs_attention and (l.passed_last is null or t.run_started > l.passed_last)
group by t.test
order by min(t.run_started), t.test
limit 20
