-- The tables of docs/query.md, out of the files of a lake, which are lake.runs, lake.tests and so on. For any engine that knows max_by.
create view test_names as
  select project, test_id, max(test) as test, max(module) as module, max_by(name, seen) as name,
    max_by(coalesce(class_name, ''), seen) as class_text, max_by(coalesce(method_name, ''), seen) as method_text,
    max_by(tags, seen) as tags, max_by(coalesce(owner, ''), seen) as owner_text
  from lake.tests
  group by project, test_id;

create view runs as
  select run_id, run, run_started as started, duration_ms, branch, commit_id, complete, part, made_up, tests,
    needing_attention, broken, project
  from lake.runs;

create view tests as
  select a.run_id, a.run, a.run_started, a.branch, n.test, n.module, n.name, nullif(n.class_text, '') as class_name,
    nullif(n.method_text, '') as method_name, n.tags, nullif(n.owner_text, '') as owner, a.outcome, a.needs_attention,
    a.duration_ms, a.attempt as attempts, a.flaky, a.reason, cast(null as varchar(10)) as label, a.project
  from lake.attempts a
    join test_names n on n.test_id = a.test_id and n.project = a.project
  where a.last;

create view reasons as
  select reason, max_by(title, run_started) as title, count(distinct run_id) as runs, sum(tests) as tests,
    min(run_started) as first_seen, max(run_started) as last_seen, project
  from lake.reasons
  group by project, reason;

create view attempts as
  select a.run_id, a.run, n.test, a.attempt, a.outcome, a.needs_attention, a.run_started, a.duration_ms, a.worker, a.reason,
    a.project
  from lake.attempts a
    join test_names n on n.test_id = a.test_id and n.project = a.project;

create view steps as
  select s.run_id, s.run, n.test, s.attempt, s.step, s.name, s.run_started, s.duration_ms, s.project
  from lake.steps s
    join test_names n on n.test_id = s.test_id and n.project = s.project;

create view exchanges as
  select x.run_id, x.run, n.test, x.attempt, x.exchange, x.method, x.address as url, x.status, x.run_started,
    x.duration_ms, x.project
  from lake.exchanges x
    left join test_names n on n.test_id = x.test_id and n.project = x.project;
