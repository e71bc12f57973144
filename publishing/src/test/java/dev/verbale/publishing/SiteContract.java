package dev.verbale.publishing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.folder.RunFolder;
import dev.verbale.report.PageOptions;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** What a site keeps to, wherever its files are. */
@Timeout(120)
abstract class SiteContract {

    private static final Pattern ADDRESS = Pattern.compile("(?:href=\"|url=)([^\"#]+)\"");

    @TempDir
    Path root;

    /** The same one each time. */
    abstract SiteStore store() throws IOException;

    /** One for several at once. */
    SiteStore shared() throws IOException {
        return store();
    }

    /** All files that are there, by their names in the site. */
    abstract Set<String> names() throws IOException;

    @BeforeEach
    void others() throws Exception {
        Path own = Files.writeString(root.resolve("own"), "somebody's own");
        try (SiteStore store = store()) {
            store.put("CNAME", own);
            store.put("runs/notes.txt", own);
        }
    }

    static RunFolder run(Path root, String name, String branch, String failure) {
        AdapterRecorder recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withRun(name).withSummaryLine(false));
        recorder.fact("branch", branch);
        recorder.fact("tags", "nightly, <b>");
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("bed", "the <i>bed</i> is dry")
                        .className("sample.BedTest")
                        .build());
        recorder.endTest(test, failure == null ? TestEnd.passed() : TestEnd.threw(new AssertionError(failure)));
        return new RunFolder(recorder.folder());
    }

    private Site.Published publish(RunFolder run, int kept) throws IOException {
        try (SiteStore store = store()) {
            return new Site(store, "Orto & nights", kept).publish(run, PageOptions.PLAIN);
        }
    }

    private String text(String name) throws IOException {
        try (SiteStore store = store()) {
            SiteStore.Stored stored = store.read(name);
            return stored == null ? null : new String(stored.bytes(), StandardCharsets.UTF_8);
        }
    }

    /** Where the links of {@code from} lead, as a browser finds it. */
    private List<String> links(String from) throws IOException {
        List<String> links = new ArrayList<>();
        Matcher address = ADDRESS.matcher(text(from));
        while (address.find())
            links.add(URI.create("http://site/" + from)
                    .resolve(address.group(1))
                    .getPath()
                    .substring(1));
        return links;
    }

    @Test
    void files_are_listed_with_their_versions_and_brought_whole() throws Exception {
        try (SiteStore store = store()) {
            String first = store.replace("beds/one.json", "{}".getBytes(StandardCharsets.UTF_8), null);
            store.replace("beds/two.json", "[]".getBytes(StandardCharsets.UTF_8), null);
            Map<String, String> listed = store.list("beds/");
            Path here = Files.writeString(root.resolve("brought"), "what was there");

            assertThat(listed)
                    .containsOnlyKeys("beds/one.json", "beds/two.json")
                    .containsEntry("beds/one.json", first);
            assertThat(store.list("runs/n")).containsOnlyKeys("runs/notes.txt");
            assertThat(store.list("nothing/")).isEmpty();
            assertThat(store.bring("beds/none.json", here)).isNull();
            assertThat(here).hasContent("what was there");
            assertThat(store.bring("beds/one.json", here)).isEqualTo(first);
            assertThat(here).hasContent("{}");
            String second = store.replace("beds/one.json", "{ }".getBytes(StandardCharsets.UTF_8), first);
            assertThat(store.list("beds/one")).containsEntry("beds/one.json", second);
            assertThat(second).isNotEqualTo(first);
        }
    }

    @Test
    void a_site_has_an_index_a_page_and_addresses_that_stay() throws Exception {
        RunFolder first = run(root.resolve("a"), "2026-11-29_1", "main", "weeds");
        RunFolder second = run(root.resolve("a"), "2026-11-30_1", "feature/rota & co", null);
        publish(first, 10);
        Site.Published published = publish(second, 10);

        assertThat(published.page()).isEqualTo("runs/2026-11-30_1/");
        assertThat(text("index.html"))
                .containsSubsequence("2026-11-30_1", "feature/rota &amp; co", "2026-11-29_1", "1 needs attention")
                .contains("<title>Orto &amp; nights</title>", "&lt;b&gt;")
                .doesNotContain("<script", "<b>,");
        assertThat(links("index.html"))
                .contains("latest/index.html", "runs/2026-11-29_1/index.html", "runs/2026-11-30_1/index.html");
        for (String from : links("index.html")) {
            assertThat(links(from)).isNotEmpty().isSubsetOf(names());
            assertThat(text(links(from).get(0))).contains("Verbale");
        }
        assertThat(links("latest/index.html")).allMatch(to -> to.contains("2026-11-30_1-"));
        assertThat(links("latest/main/index.html")).allMatch(to -> to.contains("2026-11-29_1-"));
        assertThat(links("latest/feature-rota-co/index.html")).allMatch(to -> to.contains("2026-11-30_1-"));
        assertThat(text("CNAME")).isEqualTo("somebody's own");
    }

    @Test
    void what_is_there_is_not_sent_again_and_what_changed_is() throws Exception {
        RunFolder run = run(root.resolve("a"), "night", "main", "weeds");
        Site.Published first = publish(run, 10);
        Set<String> before = names();
        Site.Published same = publish(run, 10);
        assertThat(first.sent()).isEqualTo(first.files());
        assertThat(same.sent()).isZero();
        assertThat(names()).isEqualTo(before);

        run(root.resolve("a"), "night", "main", "weeds"); // a second JVM of the run
        Site.Published changed = publish(run, 10);

        assertThat(changed.sent()).isPositive().isLessThan(changed.files());
        assertThat(changed.gone()).isEmpty();
        String page = links("latest/index.html").get(0).replace("index.html", "");
        assertThat(names().stream().filter(name -> name.startsWith("pages/"))).allMatch(name -> name.startsWith(page));
    }

    @Test
    void the_last_ones_are_kept_and_the_newest_of_each_branch_and_what_others_have() throws Exception {
        publish(run(root.resolve("a"), "2026-11-01_1", "old", null), 2);
        for (int day = 10; day < 15; day++) publish(run(root.resolve("a"), "2026-11-" + day + "_1", "main", null), 2);

        assertThat(links("index.html"))
                .contains(
                        "runs/2026-11-14_1/index.html", "runs/2026-11-13_1/index.html", "runs/2026-11-01_1/index.html")
                .hasSize(4);
        assertThat(names().stream().filter(name -> name.contains("2026-11-12"))).isEmpty();
        assertThat(names()).contains("CNAME", "runs/notes.txt", "latest/old/index.html");
        assertThat(names().stream().filter(name -> name.endsWith("files.sha256")))
                .hasSize(3);
    }

    @Test
    void several_who_publish_at_once_end_in_a_site_that_has_all() throws Exception {
        List<CompletableFuture<Site.Published>> all = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            RunFolder run = run(root.resolve("a"), "2026-11-1" + i + "_1", "b" + i % 3, i % 2 == 0 ? null : "weeds");
            all.add(CompletableFuture.supplyAsync(() -> {
                try {
                    try (SiteStore store = shared()) {
                        return new Site(store, "Orto", 50).publish(run, PageOptions.PLAIN);
                    }
                } catch (IOException failed) {
                    throw new IllegalStateException(failed);
                }
            }));
        }
        for (CompletableFuture<Site.Published> one : all) one.get(100, TimeUnit.SECONDS);

        assertThat(links("index.html").stream().filter(link -> link.startsWith("runs/")))
                .hasSize(8);
        assertThat(links("latest/index.html")).allMatch(to -> to.contains("2026-11-17_1-"));
        for (String from : links("index.html")) assertThat(links(from)).isSubsetOf(names());
    }

    /** A store that ends after so many calls, as a machine does that is switched off. */
    private static final class Dying extends Forwarding {
        private int left;

        Dying(SiteStore store, int left) {
            super(store);
            this.left = left;
        }

        @Override
        void call() throws IOException {
            if (left-- <= 0) throw new IOException("switched off");
        }
    }

    @Test
    void whenever_it_is_switched_off_every_address_leads_to_a_whole_page_and_the_next_time_makes_it_right()
            throws Exception {
        publish(run(root.resolve("a"), "2026-11-01_1", "main", null), 2);
        publish(run(root.resolve("a"), "2026-11-02_1", "main", null), 1);
        RunFolder run = run(root.resolve("a"), "2026-11-03_1", "main", "weeds");
        boolean isOver = false;
        int moments = 0;
        for (int calls = 0; !isOver; calls += step()) {
            try (SiteStore store = new Dying(store(), calls)) {
                new Site(store, "Orto", 1).publish(run, PageOptions.PLAIN);
                isOver = true;
            } catch (IOException off) {
                assertThat(off).hasMessageContaining("switched off");
                moments++;
            }
            Set<String> there = names();
            for (String from : links("index.html")) {
                if (!there.contains(from)) continue; // said below
                for (String to : links(from))
                    assertThat(there).as("after " + calls + " calls").contains(to);
            }
            for (String latest : List.of("latest/index.html", "latest/main/index.html"))
                assertThat(there).as("after " + calls + " calls").containsAll(links(latest));
        }
        assertThat(moments).isGreaterThan(2);
        assertThat(links("latest/index.html")).allMatch(to -> to.contains("2026-11-03_1-"));
        assertThat(links("index.html")).doesNotContain("runs/2026-11-02_1/index.html");
    }

    /** Each call is a moment; by day not each. */
    int step() {
        return 1;
    }

    @Test
    void a_list_that_is_none_is_left_as_it_is_and_named() throws Exception {
        try (SiteStore store = store()) {
            store.put("runs.json", root.resolve("own"));
        }

        assertThatThrownBy(() -> publish(run(root.resolve("a"), "night", "main", null), 2))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("runs.json is no list of runs of a site");
        assertThat(text("runs.json")).isEqualTo("somebody's own");
        assertThat(new TreeSet<>(names())).containsExactly("CNAME", "runs.json", "runs/notes.txt");
    }
}
