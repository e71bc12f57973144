create index results_by_test on stored_results (test_id);
create index tests_by_key on stored_tests (test);
