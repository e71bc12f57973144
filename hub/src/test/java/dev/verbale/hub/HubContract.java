package dev.verbale.hub;

import static dev.verbale.hub.HubFixture.until;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.folder.RunFolder;
import dev.verbale.history.History;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.RunSummary;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.rules.Rules;
import dev.verbale.rules.RulesReader;
import dev.verbale.rules.Triage;
import dev.verbale.sending.HubProject;
import dev.verbale.sending.HubRefused;
import dev.verbale.sending.SentRun;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** What a hub does whatever database it has: real runs are sent over real sockets. */
@Timeout(120)
abstract class HubContract {

    @TempDir
    Path root;

    private HubFixture hub;
    private String send;
    private String read;

    /** An empty one; null for the embedded one. */
    abstract HubOptions.Database database() throws Exception;

    @BeforeEach
    void begin() throws Exception {
        hub = new HubFixture(root.resolve("server"), database());
        send = hub.token("orto", Role.SEND, "CI");
        read = hub.token("orto", Role.READ, "Ada");
    }

    @AfterEach
    void end() {
        hub.close();
    }

    private RunFolder recorded(String name, String... tests) {
        AdapterRecorder recorder = HubFixture.recorder(root.resolve(name));
        for (String test : tests) HubFixture.test(recorder, test, !test.startsWith("bad"));
        HubFixture.end(recorder);
        return new RunFolder(recorder.folder());
    }

    /** Waits for what another thread does. */
    private static void await(CompletableFuture<?> what) throws Exception {
        what.get(60, TimeUnit.SECONDS);
    }

    private Run copyOf(String run) throws Exception {
        until(() -> Files.exists(hub.copyOf("orto", run).resolve("run.json")));
        return RunReader.read(hub.copyOf("orto", run));
    }

    /** The copy of the first part, which comes when the hub looks. */
    private Path shardOf(String run) throws Exception {
        var copy = new RunFolder(hub.copyOf("orto", run));
        until(() -> !copy.shards().isEmpty());
        return copy.shards().get(0).path();
    }

    @Test
    void a_run_that_is_sent_is_there_byte_for_byte_and_is_not_sent_again() throws Exception {
        RunFolder run = recorded("a", "swaps", "bad", "digs");

        SentRun sent = hub.sender(run, send, "orto", null).send();

        assertThat(sent.unsent()).isEmpty();
        assertThat(sent.bytes()).isPositive();
        assertThat(sent.page()).hasPath("/projects/orto/runs/" + run.name() + "/");
        until(() -> copyOf(run.name()).counts().all() == 3);
        Path copy = shardOf(run.name());
        until(() -> HubFixture.contents(copy).equals(HubFixture.contents(run.path())));
        assertThat(copyOf(run.name()).counts().byOutcome()).containsEntry(Outcome.FAILED, 1);
        SentRun again = hub.sender(run, send, "orto", null).send();
        assertThat(again.isWhole()).isTrue();
        assertThat(hub.get(HubFixture.ADMINISTER, "metrics").body())
                .contains("verbale_hub_runs 1\n", "verbale_hub_unstored_bytes 0\n")
                .endsWith("# EOF\n");
        String page = hub.get(read, "projects/orto/runs/" + run.name() + "/").body();
        assertThat(page).contains("1 of 3 tests did not pass", "weeds in bad");
        assertThat(hub.get(read, "projects/orto/").body())
                .contains("data-run=\"" + run.name() + "\"", "href=\"runs/" + run.name() + "/\"");
    }

    @Test
    void a_run_is_seen_while_it_goes_and_each_test_soon_after_its_end() throws Exception {
        AdapterRecorder recorder = HubFixture.recorder(root.resolve("live"));
        HubFixture.test(recorder, "first", true);
        var isOver = new AtomicBoolean();
        var follower = CompletableFuture.supplyAsync(() -> {
            try {
                return hub.sender(new RunFolder(recorder.folder()), send, "orto", "night")
                        .follow(Duration.ofSeconds(60), isOver::get);
            } catch (Exception failed) {
                throw new IllegalStateException(failed);
            }
        });

        for (String test : List.of("second", "bad third", "fourth")) {
            int before = test.equals("second") ? 1 : test.equals("fourth") ? 3 : 2;
            until(() -> copyOf("night").tests().stream()
                            .filter(one -> !one.outcome().equals(Outcome.UNFINISHED))
                            .count()
                    == before);
            HubFixture.test(recorder, test.replace(' ', '_'), !test.startsWith("bad"));
        }
        until(() -> copyOf("night").tests().size() == 4);
        assertThat(hub.get(read, "projects/orto/").body()).contains("going");
        HubFixture.end(recorder);
        isOver.set(true);
        await(follower);

        assertThat(follower.join().isWhole()).isTrue();
        until(() -> hub.get(read, "projects/orto/runs/night/").body().contains("1 of 4 tests did not pass"));
    }

    @Test
    void a_run_whose_sender_was_killed_is_remembered_as_incomplete_and_goes_on_where_somebody_sends_the_rest()
            throws Exception {
        AdapterRecorder recorder = HubFixture.recorder(root.resolve("live"));
        HubFixture.test(recorder, "bad", false);
        var run = new RunFolder(recorder.folder());
        var rounds = new AtomicInteger();
        assertThatThrownBy(() -> hub.sender(run, send, "orto", "night").follow(Duration.ofSeconds(60), () -> {
                    if (rounds.incrementAndGet() > 1) throw new IllegalStateException("killed");
                    return false;
                }))
                .hasMessage("killed");
        until(() -> copyOf("night").counts().all() == 1);
        Instant now = Instant.now();

        hub.sweep(now);
        hub.sweep(now.plus(Duration.ofMinutes(59)));
        assertThat(hub.get(read, "api/v1/projects/orto/history").body()).isBlank();
        hub.sweep(now.plus(Duration.ofMinutes(60)));

        until(() -> remembered().size() == 1);
        assertThat(remembered().get(0).isComplete()).isFalse();
        assertThat(hub.get(HubFixture.ADMINISTER, "metrics").body()).contains("verbale_hub_unstored_bytes 0\n");
        HubFixture.test(recorder, "later", true);
        HubFixture.end(recorder);
        assertThat(hub.sender(run, send, "orto", "night").send().isWhole()).isTrue();
        until(() -> remembered().stream().anyMatch(one -> one.isComplete() && one.tests() == 2));
    }

    private List<RunSummary> remembered() throws Exception {
        Path here = root.resolve("remembered");
        new HubProject(hub.sending(read, "orto", null)).history(here);
        return new HistoryFolder(here).read(problem -> {}).runs();
    }

    @Test
    void what_several_send_under_one_name_is_one_run() throws Exception {
        hub.sender(recorded("a", "swaps"), send, "orto", "build-7").send();
        hub.sender(recorded("b", "digs", "bad"), send, "orto", "build-7").send();
        hub.sender(recorded("c", "other"), send, "orto", "build-8").send();

        until(() -> copyOf("build-7").counts().all() == 3);
        assertThat(copyOf("build-7").tests())
                .extracting(TestResult::name)
                .containsExactlyInAnyOrder("swaps", "digs", "bad");
        until(() -> copyOf("build-8").counts().all() == 1);
    }

    @Test
    void a_sender_that_is_cut_off_anywhere_goes_on_where_it_ended_and_nothing_is_there_twice() throws Exception {
        RunFolder run = recorded("cut", "swaps", "digs", "bad", "sows");
        var random = new java.util.Random(4);
        for (int cut = 0; cut < 8; cut++) {
            var sender = new Thread(() -> {
                try {
                    hub.sender(run, send, "orto", "cut").send();
                } catch (Exception stopped) {
                    // as it is meant
                }
            });
            sender.start();
            LockSupport.parkNanos(random.nextInt(60_000_000));
            sender.interrupt();
            sender.join();
        }

        SentRun sent = hub.sender(run, send, "orto", "cut").send();

        assertThat(sent.unsent()).isEmpty();
        Path copy = shardOf("cut");
        until(() -> HubFixture.contents(copy).equals(HubFixture.contents(run.path())));
    }

    @Test
    void a_hub_that_is_ended_and_begun_again_keeps_all_that_it_acknowledged() throws Exception {
        AdapterRecorder recorder = HubFixture.recorder(root.resolve("live"));
        var isOver = new AtomicBoolean();
        var follower = CompletableFuture.supplyAsync(() -> {
            try {
                return hub.sender(new RunFolder(recorder.folder()), send, "orto", "night")
                        .follow(Duration.ofSeconds(60), isOver::get);
            } catch (Exception failed) {
                throw new IllegalStateException(failed);
            }
        });
        for (int round = 0; round < 3; round++) {
            for (int i = 0; i < 8; i++) HubFixture.test(recorder, "t" + round + "_" + i, true);
            hub.close();
            hub.begin();
        }
        HubFixture.end(recorder);
        isOver.set(true);
        await(follower);

        assertThat(follower.join().unsent()).isEmpty();
        until(() -> copyOf("night").counts().all() == 24);
        Path copy = shardOf("night");
        until(() -> HubFixture.contents(copy).equals(HubFixture.contents(recorder.folder())));
    }

    @Test
    void a_file_that_is_another_one_now_is_named_and_never_taken_for_the_same() throws Exception {
        RunFolder run = recorded("changed", "swaps");
        hub.sender(run, send, "orto", "changed").send();
        Path journal = run.journalFiles().get(0);
        byte[] bytes = Files.readAllBytes(journal);
        bytes[bytes.length / 2] ^= 1;
        Files.write(journal, bytes);
        Files.writeString(run.path().resolve("late.txt"), "late", StandardOpenOption.CREATE_NEW);

        SentRun sent = hub.sender(run, send, "orto", "changed").send();

        assertThat(sent.isWhole()).isFalse();
        assertThat(sent.unsent()).containsExactly("journals/worker-1.jsonl: has another content there");
        Path copy = shardOf("changed");
        until(() -> Files.exists(copy.resolve("late.txt")));
    }

    @Test
    void what_is_no_part_of_a_run_is_not_sent_and_what_cannot_be_is_named() throws Exception {
        RunFolder run = recorded("parts", "swaps");
        for (String left :
                List.of("page/index.html", ".verbale-page-1/x.js", "spools/1.mkv", "tests/.fresh", "writers.lock")) {
            Files.createDirectories(run.path().resolve(left).getParent());
            Files.writeString(run.path().resolve(left), "weeds");
        }
        Files.writeString(run.path().resolve("back\\slash.txt"), "odd");
        Files.createSymbolicLink(run.path().resolve("link.txt"), Path.of("/etc/hostname"));

        SentRun sent = hub.sender(run, send, "orto", "parts").send();

        assertThat(sent.unsent()).containsExactly("back\\slash.txt: has a name that other systems cannot keep");
        Path copy = new RunFolder(hub.copyOf("orto", "parts")).path();
        until(() -> copyOf("parts").counts().all() == 1);
        assertThat(HubFixture.contents(copy).keySet())
                .noneMatch(name -> name.matches(".*(page|spools|fresh|lock|link|slash).*"))
                .hasSize(sent.files() + 1);
    }

    @Test
    void a_token_does_what_its_role_says_in_its_project_until_it_is_ended() throws Exception {
        RunFolder run = recorded("roles", "swaps");
        hub.token("shed", Role.SEND, "shed");

        assertThatThrownBy(() -> hub.sender(run, read, "orto", "x").send())
                .isInstanceOfSatisfying(
                        HubRefused.class,
                        refused -> assertThat(refused.status()).isEqualTo(403));
        assertThatThrownBy(() -> hub.sender(run, send, "shed", "x").send())
                .isInstanceOfSatisfying(
                        HubRefused.class,
                        refused -> assertThat(refused.status()).isEqualTo(403));
        assertThatThrownBy(() -> hub.sender(run, "guessed", "orto", "x").send())
                .isInstanceOfSatisfying(
                        HubRefused.class,
                        refused -> assertThat(refused.status()).isEqualTo(401));
        hub.sender(run, send, "orto", "x").send();
        assertThat(hub.get(send, "projects/orto/").statusCode()).isEqualTo(404);
        assertThat(hub.get(read, "projects/shed/").statusCode()).isEqualTo(404);
        assertThat(hub.get(read, "projects/orto/").statusCode()).isEqualTo(200);
        assertThat(hub.get(read, "").body()).contains("projects/orto/").doesNotContain("projects/shed/");
        assertThat(hub.get(null, "projects/orto/").statusCode()).isEqualTo(401);
        assertThat(hub.get(read, "metrics").statusCode()).isEqualTo(403);
        assertThat(hub.api(send, "POST", "api/v1/tokens?project=orto&role=read&label=x", "")
                        .statusCode())
                .isEqualTo(403);
        assertThat(hub.api(HubFixture.ADMINISTER, "DELETE", "api/v1/tokens?label=CI", "")
                        .statusCode())
                .isEqualTo(200);
        assertThatThrownBy(() -> hub.sender(run, send, "orto", "x").send()).isInstanceOf(HubRefused.class);
    }

    @Test
    void what_people_know_of_a_reason_stays_with_it_in_later_runs_and_stands_on_their_pages() throws Exception {
        hub.sender(recorded("a", "bad"), send, "orto", "monday").send();
        until(() -> copyOf("monday").needingAttention().size() == 1);
        String reason = FailureReason.of(copyOf("monday")).get(0).id();
        assertThat(runJs("monday")).contains("\"projectPages\":\"../../\"").doesNotContain("seeds team");
        var asAda = new HubProject(hub.sending(hub.token("orto", Role.LABEL, "Ada Rossi"), "orto", null));

        asAda.know(
                reason,
                Map.of("label", "seeds team", "owner", "Bruno", "comment", "wet\nsoil", "known-until", "2031-01-02"));

        assertThat(runJs("monday")).contains("\"label\":\"seeds team\"", "\"owner\":\"Bruno\"");
        hub.sender(recorded("b", "bad", "digs"), send, "orto", "tuesday").send();
        until(() -> copyOf("tuesday").counts().all() == 2 && runJs("tuesday").contains("\"label\":\"seeds team\""));
        Rules rules = RulesReader.read(Path.of("hub"), asAda.rules());
        Triage triage = Triage.of(copyOf("tuesday"), rules.triage(), LocalDate.parse("2030-01-01"));
        assertThat(triage.unlabelled()).isZero();
        assertThat(triage.failures().get(0).rule().orElseThrow().sentence(LocalDate.parse("2030-01-01")))
                .isEqualTo("seeds team, owner Bruno, known until 2031-01-02, wet soil");
        until(() -> hub.get(read, "projects/orto/reasons/" + reason).body().contains("in 2 runs"));
        assertThat(hub.get(read, "projects/orto/reasons/" + reason).body())
                .contains("weeds in bad", "seeds team, owner Bruno", "Ada Rossi", "runs/tuesday/", "tests?key=")
                .doesNotContain("<form");

        asAda.know(reason, Map.of());
        assertThat(asAda.rules()).doesNotContain(reason);
        assertThat(runJs("tuesday")).doesNotContain("seeds team");
        assertThat(hub.get(read, "projects/orto/reasons/" + reason).body())
                .contains("Nobody has said whose it is", "took it away", "seeds team, owner Bruno");
    }

    /** What the page of a run begins with, made anew. */
    private String runJs(String run) throws Exception {
        hub.get(read, "projects/orto/runs/" + run + "/");
        return hub.get(read, "projects/orto/runs/" + run + "/data/run.js").body();
    }

    @Test
    void a_person_labels_a_reason_by_its_form_and_no_other_site_does() throws Exception {
        String page = "projects/orto/reasons/3f09a1c2b7d4";
        String[] form = {"Content-Type", "application/x-www-form-urlencoded"};
        String ada = hub.token("orto", Role.LABEL, "Ada");

        assertThat(hub.get(ada, page).body()).contains("<form", "name=\"label\"");
        assertThat(hub.api(ada, "POST", page, "label=product&link=https%3A%2F%2Ftracker.orto.example%2F17", form)
                        .statusCode())
                .isEqualTo(303);
        assertThat(hub.get(read, page).body()).contains("product, <a href=\"https://tracker.orto.example/17\"");
        assertThat(hub.api(ada, "POST", page, "label=test", form[0], form[1], "Origin", "https://elsewhere.example")
                        .statusCode())
                .isEqualTo(403);
        for (String who : List.of(read, send, hub.token("shed", Role.LABEL, "shed")))
            assertThat(hub.api(who, "POST", page, "label=test", form).statusCode())
                    .as("who may not see it is not told that it is there")
                    .isEqualTo(who.equals(read) ? 403 : 404);
        assertThat(hub.api(null, "POST", page, "label=test", form).statusCode()).isEqualTo(401);
        for (String wrong : List.of(
                "owner=Ada",
                "label=",
                "label=" + "x".repeat(101),
                "label=test&link=javascript%3Aalert(1)",
                "label=test&known-until=tomorrow"))
            assertThat(hub.api(ada, "POST", page, wrong, form).statusCode())
                    .as(wrong)
                    .isEqualTo(422);
        assertThat(hub.api(ada, "POST", page, "label=" + "x".repeat(20_000), form)
                        .statusCode())
                .isEqualTo(400);
        assertThat(hub.get(read, page).body()).contains("product, <a href=\"https://tracker.orto.example/17\"");
        assertThat(hub.api(ada, "POST", page, "forget=yes", form).statusCode()).isEqualTo(303);
        assertThat(hub.get(read, page).body()).contains("Nobody has said whose it is");
    }

    @Test
    void what_the_hub_remembers_is_what_a_history_folder_would() throws Exception {
        for (String night : List.of("monday", "tuesday", "wednesday"))
            hub.sender(recorded(night, night.equals("monday") ? "swaps" : "bad", "digs"), send, "orto", night)
                    .send();
        var project = new HubProject(hub.sending(send, "orto", null));
        Path here = root.resolve("here");
        until(() -> {
            project.history(here);
            return new HistoryFolder(here).files().size() == 3;
        });

        assertThat(project.history(here)).as("what is here already").isZero();
        Files.writeString(new HistoryFolder(here).files().get(0), "broken");
        assertThat(project.history(here)).isEqualTo(1);
        History history = new HistoryFolder(here).read(problem -> {
            throw new AssertionError(problem.sentence());
        });
        assertThat(history.runs()).extracting(RunSummary::name).containsExactly("monday", "tuesday", "wednesday");
        assertThat(history.test("sample.RotaTest.bad()").orElseThrow().row()).isEqualTo("FF");
        assertThat(runJs("wednesday")).contains("\"earlier\":{\"runs\":2");
        String key = "sample.RotaTest.bad()";
        assertThat(hub.get(read, "projects/orto/tests?key=" + key).body())
                .contains("It fails since ", "runs/tuesday/#/test/", "reasons/");
        assertThat(hub.get(read, "projects/orto/tests?key=nobody").statusCode()).isEqualTo(404);

        hub.sender(recorded("late", "late"), send, "orto", "wednesday").send();
        until(() -> project.history(here) == 1);
        assertThat(new HistoryFolder(here).read(problem -> {}).runs())
                .extracting(RunSummary::tests)
                .containsExactly(2, 2, 3);
        hub.close();
        hub.begin();
        assertThat(project.history(here)).as("the same after it began again").isZero();
    }

    @Test
    void what_a_project_keeps_is_said_before_the_rest_goes_and_what_is_remembered_stays() throws Exception {
        var project = new HubProject(hub.sending(HubFixture.ADMINISTER, "orto", null));
        for (String night : List.of("failing", "passing", "marked", "newest"))
            hub.sender(recorded(night, night.equals("failing") ? "bad" : "of " + night), send, "orto", night)
                    .send();
        Path here = root.resolve("here");
        until(() -> {
            project.history(here);
            return new HistoryFolder(here).files().size() == 4;
        });
        for (String night : List.of("failing", "passing", "marked", "newest")) copyOf(night);
        assertThat(project.keeping()).isEqualTo("all runs stay\n");
        Instant now = Instant.now();
        hub.sweep(now.plus(Duration.ofDays(1_000)));
        assertThat(hub.get(read, "projects/orto/runs/passing/").statusCode()).isEqualTo(200);

        assertThatThrownBy(() -> new HubProject(hub.sending(read, "orto", null)).keep(Map.of("days", "2")))
                .isInstanceOf(HubRefused.class);
        new HubProject(hub.sending(hub.token("orto", Role.LABEL, "Ada"), "orto", null)).stays("marked", true);
        assertThat(project.keep(Map.of("days", "2", "failing-days", "5")))
                .startsWith("days: 2\nfailing-days: 5\n")
                .containsPattern("passing goes \\d{4}-.*: older than 2 days")
                .containsPattern("failing goes \\d{4}-.*: older than 5 days, with failures")
                .doesNotContain("marked goes", "newest goes");
        hub.sweep(now.plus(Duration.ofDays(1)));
        assertThat(hub.get(read, "projects/orto/runs/passing/").statusCode()).isEqualTo(200);
        hub.sweep(now.plus(Duration.ofDays(3)));

        assertThat(hub.get(read, "projects/orto/runs/passing/").statusCode()).isEqualTo(404);
        assertThat(hub.copyOf("orto", "passing")).doesNotExist();
        for (String night : List.of("failing", "marked", "newest"))
            assertThat(hub.get(read, "projects/orto/runs/" + night + "/").statusCode())
                    .as(night)
                    .isEqualTo(200);
        assertThat(hub.objectsWith("of passing")).as("for an hour more").isPositive();
        hub.sweep(now.plus(Duration.ofDays(3)).plus(Duration.ofMinutes(61)));
        assertThat(hub.objectsWith("of passing")).isZero();
        assertThat(hub.objectsWith("of newest")).isPositive();
        SentRun again = hub.sender(recorded("again", "of passing"), send, "orto", "passing")
                .send();
        assertThat(again.unsent()).as("under the name of one that went").isEmpty();
        until(() -> copyOf("passing").counts().all() == 1);
        project.keep(Map.of());
        until(() -> project.history(here) == 1);
        hub.close();
        hub.begin();
        assertThat(project.history(here)).as("nothing new, and nothing gone").isZero();
        assertThat(new HistoryFolder(here).files())
                .as("the one that came again is the newer")
                .hasSize(4);
        assertThat(project.keep(Map.of("max-bytes", "1")))
                .contains("failing goes ")
                .doesNotContain("passing goes");
        assertThat(project.keep(Map.of())).isEqualTo("all runs stay\n");
    }

    @Test
    void a_person_whom_the_proxy_names_may_what_was_said() throws Exception {
        hub.sender(recorded("a", "swaps"), send, "orto", "night").send();
        String[] ada = {"X-Forwarded-User", "ada@orto.example"};
        var orto = new HubProject(hub.sending(HubFixture.ADMINISTER, "orto", null));

        assertThat(hub.api(null, "GET", "", "", ada).body()).contains("You are ada@orto.example");
        assertThat(hub.api(null, "GET", "projects/orto/", "", ada).statusCode()).isEqualTo(404);
        orto.person("*", "read");
        assertThat(hub.api(null, "GET", "projects/orto/", "", ada).statusCode()).isEqualTo(200);
        String reason = "projects/orto/reasons/3f09a1c2b7d4";
        String[] form = {ada[0], ada[1], "Content-Type", "application/x-www-form-urlencoded"};
        assertThat(hub.api(null, "POST", reason, "label=product", form).statusCode())
                .isEqualTo(403);
        orto.person("ada@orto.example", "label");
        assertThat(hub.api(null, "POST", reason, "label=product", form).statusCode())
                .isEqualTo(303);
        assertThat(hub.api(null, "GET", reason, "", ada).body()).contains("<td>ada@orto.example</td>");
        assertThat(hub.api(null, "POST", "api/v1/people?name=eve&role=administer", "", ada)
                        .statusCode())
                .isEqualTo(403);
        String[] foreign = {"X-Forwarded-User", "root@orto.example", "Origin", "https://elsewhere.example"};
        orto.person("root@orto.example", "administer");
        assertThat(hub.api(null, "POST", "api/v1/people?name=eve&role=administer", "", foreign)
                        .statusCode())
                .as("by another site's form, in an administrator's browser")
                .isEqualTo(403);
        orto.endPerson("ada@orto.example");
        assertThat(hub.api(null, "POST", reason, "label=test", form).statusCode())
                .isEqualTo(403);
        assertThat(hub.api(null, "GET", "metrics", "", "X-Forwarded-User", "root@orto.example")
                        .statusCode())
                .isEqualTo(200);
        assertThat(hub.api(null, "GET", "projects/orto/", "", "X-Forwarded-User", "*")
                        .statusCode())
                .as("nobody is called that")
                .isEqualTo(401);
    }
}
