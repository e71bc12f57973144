-- The same on H2 and on PostgreSQL. What begins with "stored" is how it is kept; the views below are what is asked.

create table stored_runs (
  run_id integer primary key,
  source varchar(2000) not null unique,
  source_size bigint not null,
  run varchar(2000) not null,
  started timestamp(3) with time zone not null,
  duration_ms bigint not null,
  branch varchar(2000) not null,
  commit_id varchar(2000) not null,
  complete boolean not null,
  part varchar(2000) not null,
  broken integer not null,
  made_up boolean not null
);

create table stored_tests (
  test_id integer primary key,
  test varchar not null,
  module varchar not null,
  name varchar not null,
  class_name varchar,
  method_name varchar
);

create table stored_outcomes (
  outcome_id smallint primary key,
  outcome varchar(100) not null unique,
  needs_attention boolean not null
);

create table stored_reasons (
  reason_id integer primary key,
  reason varchar(200) not null unique,
  title varchar not null
);

create table stored_results (
  run_id integer not null,
  test_id integer not null,
  outcome_id smallint not null,
  duration_ms integer not null,
  attempts smallint not null,
  flaky boolean not null,
  reason_id integer,
  tags varchar not null,
  owner varchar,
  label varchar(2000),
  primary key (run_id, test_id)
);

create table stored_attempts (
  attempt_id bigint primary key,
  run_id integer not null,
  test_id integer not null,
  attempt smallint not null,
  outcome_id smallint not null,
  started timestamp(3) with time zone not null,
  duration_ms integer not null,
  worker varchar not null,
  thread varchar not null,
  tags varchar not null
);

create table stored_failures (
  attempt_id bigint primary key,
  type varchar,
  title varchar not null,
  message varchar,
  reason_id integer
);

create table stored_steps (
  attempt_id bigint not null,
  step integer not null,
  in_step integer,
  depth smallint not null,
  kind varchar(100) not null,
  name varchar not null,
  outcome_id smallint not null,
  started timestamp(3) with time zone not null,
  duration_ms integer not null,
  primary key (attempt_id, step)
);

create table stored_exchanges (
  attempt_id bigint not null,
  exchange integer not null,
  in_step integer,
  method varchar(100) not null,
  url varchar not null,
  status integer,
  failure varchar,
  started timestamp(3) with time zone not null,
  duration_ms integer not null,
  request_bytes bigint not null,
  response_bytes bigint,
  primary key (attempt_id, exchange)
);

create table stored_attachments (
  attempt_id bigint not null,
  attachment integer not null,
  in_step integer,
  name varchar not null,
  kind varchar(200) not null,
  media_type varchar(200) not null,
  bytes bigint not null,
  file varchar,
  primary key (attempt_id, attachment)
);

create view runs as
  select r.run_id, r.run, r.started, r.duration_ms, r.branch, r.commit_id, r.complete, r.part, r.made_up,
    (select count(*) from stored_results t where t.run_id = r.run_id) as tests,
    (select count(*) from stored_results t join stored_outcomes o on o.outcome_id = t.outcome_id
      where t.run_id = r.run_id and o.needs_attention) + r.broken as needing_attention,
    r.broken
  from stored_runs r;

create view tests as
  select r.run_id, r.run, r.started as run_started, r.branch, n.test, n.module, n.name, n.class_name, n.method_name, t.tags,
    t.owner, o.outcome, o.needs_attention, t.duration_ms, t.attempts, t.flaky, e.reason, t.label
  from stored_results t
    join stored_runs r on r.run_id = t.run_id
    join stored_tests n on n.test_id = t.test_id
    join stored_outcomes o on o.outcome_id = t.outcome_id
    left join stored_reasons e on e.reason_id = t.reason_id;

create view reasons as
  select e.reason, e.title, count(distinct t.run_id) as runs, count(*) as tests, min(r.started) as first_seen,
    max(r.started) as last_seen
  from stored_reasons e
    join stored_results t on t.reason_id = e.reason_id
    join stored_runs r on r.run_id = t.run_id
  group by e.reason, e.title;

create view attempts as
  select r.run_id, r.run, n.test, a.attempt_id, a.attempt, o.outcome, a.started, a.duration_ms, a.worker, a.thread, a.tags
  from stored_attempts a
    join stored_runs r on r.run_id = a.run_id
    join stored_tests n on n.test_id = a.test_id
    join stored_outcomes o on o.outcome_id = a.outcome_id;

create view failures as
  select r.run_id, r.run, n.test, a.attempt_id, a.attempt, f.type, f.title, f.message, e.reason, e.title as reason_title
  from stored_failures f
    join stored_attempts a on a.attempt_id = f.attempt_id
    join stored_runs r on r.run_id = a.run_id
    join stored_tests n on n.test_id = a.test_id
    left join stored_reasons e on e.reason_id = f.reason_id;

create view steps as
  select r.run_id, r.run, n.test, a.attempt_id, a.attempt, s.step, s.in_step, s.depth, s.kind, s.name, o.outcome, s.started,
    s.duration_ms
  from stored_steps s
    join stored_attempts a on a.attempt_id = s.attempt_id
    join stored_runs r on r.run_id = a.run_id
    join stored_tests n on n.test_id = a.test_id
    join stored_outcomes o on o.outcome_id = s.outcome_id;

create view exchanges as
  select r.run_id, r.run, n.test, a.attempt_id, a.attempt, x.exchange, x.in_step, x.method, x.url, x.status, x.failure,
    x.started, x.duration_ms, x.request_bytes, x.response_bytes
  from stored_exchanges x
    join stored_attempts a on a.attempt_id = x.attempt_id
    join stored_runs r on r.run_id = a.run_id
    join stored_tests n on n.test_id = a.test_id;

create view attachments as
  select r.run_id, r.run, n.test, a.attempt_id, a.attempt, x.attachment, x.in_step, x.name, x.kind, x.media_type, x.bytes,
    x.file
  from stored_attachments x
    join stored_attempts a on a.attempt_id = x.attempt_id
    join stored_runs r on r.run_id = a.run_id
    join stored_tests n on n.test_id = a.test_id;
