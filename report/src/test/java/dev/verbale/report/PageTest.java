package dev.verbale.report;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.verbale.Evidence;
import dev.verbale.EvidenceSource;
import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.folder.RunFolder;
import dev.verbale.hostile.ByNight;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.AttachmentKind;
import dev.verbale.vocabulary.StepKind;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** The page, opened from disk in a real browser. */
class PageTest {

    private static final byte[] DOT = Base64.getDecoder()
            .decode("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==");
    private static final String HOSTILE = "</script><script>window.ran=1</script><img src=x onerror='window.ran=1'>";

    private static Chromium chromium;

    @TempDir
    Path root;

    private AdapterRecorder recorder;

    @BeforeAll
    static void open_the_browser() {
        chromium = new Chromium(true);
    }

    @AfterAll
    static void close_the_browser() {
        chromium.close();
    }

    @Test
    void the_summary_says_what_happened_and_leads_to_it() throws Exception {
        Path index = page(this::smallRun);

        chromium.open(index, "");

        assertThat(chromium.text(".sentence")).isEqualTo("1 of 4 tests did not pass: 1 failed, for one reason.");
        assertThat(chromium.text(".incomplete")).startsWith("The run is incomplete: the journal of worker-1");
        assertThat(chromium.texts(".counts li")).containsExactly("1 failed", "1 skipped", "2 passed");
        assertThat(chromium.text(".strip figcaption")).contains("4 starts in time; tall marks did not pass");
        assertThat(chromium.text(".facts")).contains("host", "java", "season", "summer");
        chromium.waitFor("return document.querySelector('.shot img')?.naturalWidth === 1");
        assertThat(chromium.find(".shot img").getDomAttribute("alt")).isEqualTo("The page in swaps two days");
        assertThat(chromium.texts(".durations .number").stream()
                        .mapToInt(Integer::parseInt)
                        .sum())
                .isEqualTo(4);
        chromium.find(".reasons .reason-tests a").click();
        assertThat(chromium.text(".test h1")).isEqualTo("swaps two days");
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void the_page_of_a_test_shows_it_from_its_beginning_to_its_failure() throws Exception {
        Path index = page(this::smallRun);

        chromium.open(index, "#/test/sample.RotaTest.swaps()");

        chromium.find(".entries");
        assertThat(chromium.texts(".path")).containsExactly("Tests › Rota page");
        assertThat(chromium.driver
                        .findElements(By.cssSelector(".path a"))
                        .get(1)
                        .getDomAttribute("href"))
                .as("its class, and no other test that names it")
                .isEqualTo("#/tests?class=Rota+page");
        assertThat(chromium.texts(".step-name"))
                .containsExactly("open the rota", "Swap Monday with Thursday", "Compare");
        assertThat(chromium.texts(".kind")).containsExactly("set-up");
        assertThat(chromium.texts(".entry > time")).allMatch(time -> time.matches("\\d+:\\d\\d\\.\\d{3}"));
        assertThat(chromium.texts(".log-line")).contains("Monday waters Ada");
        assertThat(chromium.texts(".data")).containsExactly("plot 12");
        assertThat(chromium.texts(".failure .message")).containsExactly("Thursday after the swap");
        assertThat(chromium.find(".stack").isDisplayed()).as("folded at first").isFalse();
        chromium.find(".failure summary").click();
        assertThat(chromium.text(".stack"))
                .contains("java.lang.AssertionError: Thursday after the swap", "frames of libraries")
                .doesNotContain("PageTest.java");
        chromium.find(".stack summary").click();
        assertThat(chromium.text(".stack")).contains("PageTest.java");
        assertThat(chromium.texts(".step-message")).containsExactly("Thursday after the swap");
    }

    @Test
    void names_of_five_hundred_characters_take_no_more_than_three_lines_in_any_list() throws Exception {
        Path index = page(() -> {
            for (String name : List.of("swaps two days of the rota ".repeat(19).strip(), "W".repeat(500))) {
                Scope test = recorder.startTest(
                        recorder.run(),
                        TestDescriptor.of("sample.RotaTest." + name, name)
                                .className("sample.RotaTest")
                                .build());
                recorder.endTest(test, TestEnd.threw(new AssertionError(name)));
            }
        });
        for (int width : List.of(1280, 390)) {
            chromium.resize(width, 800);
            for (String view : List.of("#/", "#/tests", "#/workers")) {
                chromium.open(index, view);
                // However long it took.
                chromium.script("document.querySelectorAll('.groups tbody .number').forEach(one =>"
                        + " one.textContent = '23 h 59 min at 1439:59.999'); return 0");
                assertThat((Long) chromium.script("return document.documentElement.scrollWidth"))
                        .as(view)
                        .isLessThanOrEqualTo(width);
                assertThat(
                                (Long)
                                        chromium.script(
                                                "return Math.max(0, ...[...document.querySelectorAll("
                                                        + "'.reasons h3, .reason-tests li, .slowest li, .row-line')].map(one => one.offsetHeight))"))
                        .as(view + " at " + width)
                        .isLessThan(110);
            }
            assertThat(chromium.script("""
                    const axis = document.querySelector('.axis').getBoundingClientRect();
                    return [...document.querySelectorAll('.axis span')].map(one => one.getBoundingClientRect())
                        .filter(one => one.width > 0 && (one.left < axis.left - 0.1 || one.right > axis.right + 0.1)).length"""))
                    .as("times that hang over the drawing of workers")
                    .isEqualTo(0L);
        }
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void attachments_open_large_step_through_and_show_source_as_text() throws Exception {
        Path index = page(this::smallRun);
        chromium.open(index, "#/test/sample.RotaTest.swaps()");

        chromium.find(".thumbnail img").click();

        assertThat(chromium.text(".viewer h2")).isEqualTo("screenshot");
        assertThat(
                        chromium.script(
                                "const i = document.querySelector('.viewer .image-viewer img'); return i.complete && i.naturalWidth"))
                .as("the picture is there")
                .isEqualTo(1L);
        chromium.driver.switchTo().activeElement().sendKeys(Keys.ARROW_RIGHT);
        assertThat(chromium.text(".attachment-text")).isEqualTo("<h1>Rota</h1>");
        chromium.find(".source-controls input").sendKeys("rota", Keys.ENTER);
        assertThat(chromium.texts("mark.current")).containsExactly("Rota");
        assertThat(chromium.text(".source-controls [role=status]")).startsWith("1 hit");
        chromium.find(".source-controls button").click();
        chromium.driver.switchTo().frame(chromium.find("iframe.drawn"));
        assertThat(chromium.find("h1").getText())
                .as("drawn as a page, which runs nothing")
                .isEqualTo("Rota");
        chromium.driver.switchTo().defaultContent();
        chromium.escape();
        assertThat(chromium.script("return document.querySelector('.viewer').open"))
                .isEqualTo(false);
    }

    @Test
    void a_image_is_shown_in_its_own_size_and_larger() throws Exception {
        chromium.open(page(this::smallRun), "#/test/sample.RotaTest.swaps()");
        chromium.find(".thumbnail img").click();

        chromium.find(".image-viewer img").click();
        assertThat(chromium.text(".zoom .dim")).isEqualTo("100 %");
        chromium.driver.switchTo().activeElement().sendKeys("+");
        assertThat(chromium.text(".zoom .dim")).isEqualTo("200 %");
        assertThat(chromium.script("return document.querySelector('.image-viewer img').clientWidth"))
                .isEqualTo(2L);
        chromium.driver.switchTo().activeElement().sendKeys("0");
        assertThat(chromium.text(".zoom .dim")).isEqualTo("fitted");
        chromium.escape();
    }

    @Test
    void the_video_follows_the_lines_and_the_lines_follow_the_video() throws Exception {
        Path index = page(this::recordedRun);
        chromium.open(index, "#/test/sample.RotaTest.swaps()");
        chromium.waitFor("return document.querySelector('.video video').readyState >= 2");

        chromium.driver.findElements(By.cssSelector(".entry .seek")).get(1).click();

        chromium.waitFor("return document.querySelector('.entry.now')?.textContent.includes('click Swap')");
        double shown = ((Number) chromium.script("return document.querySelector('video').currentTime")).doubleValue();
        assertThat(shown).isCloseTo(stepAt / 1e6, within(0.06));
        assertThat(chromium.text(".video .caption")).isEqualTo("click Swap");
        assertThat(chromium.texts(".step-name em")).containsExactly("Swap");
        assertThat(chromium.texts(".locator")).containsExactly("#swap button");
        chromium.script("document.querySelector('video').currentTime = 0"); // a line may begin in the first millisecond
        chromium.waitFor("return !document.querySelector('.entry.now')");
        chromium.script("document.querySelector('video').play()");
        chromium.waitFor("return document.querySelector('video').currentTime > 1");
        chromium.waitFor("return document.querySelector('.entry.now')");

        assertThat(chromium.texts(".captured summary"))
                .containsExactly("Console, 2 lines, 1 error", "Network, 2 requests, 1 error");
        chromium.driver
                .findElements(By.cssSelector(".captured summary"))
                .get(1)
                .click(); // the console is open for its error
        assertThat(chromium.texts(".captured li")).anyMatch(line -> line.contains("error seeds is not defined"));
        assertThat(chromium.texts(".captured li")).anyMatch(line -> line.contains("404 GET /gone.png image"));
        Path captions = index.resolveSibling("attachments/tests/RotaTest/swaps-two-days/01-video.webm.vtt");
        assertThat(Files.readString(captions)).startsWith("WEBVTT\n").contains(" --> ", "Swap the days");
        assertThat(chromium.complaints()).isEmpty();
    }

    private long stepAt;

    private void recordedRun() {
        Scope test = recorder.startTest(recorder.run(), descriptor("swaps", "swaps two days"));
        try (var video = PageTest.class.getResourceAsStream("garden.webm")) {
            recorder.attach(test, "video", AttachmentKind.VIDEO, video, MediaType.of("video/webm"), 1);
        } catch (IOException broken) {
            throw new IllegalStateException(broken);
        }
        recorder.startStep("Open the page").passed();
        Step swap = recorder.startStep("Swap the days");
        stepAt = recorder.now();
        recorder.startStep(StepKind.BROWSER, "click *Swap* [#swap button]").passed();
        swap.passed();
        list(AttachmentKind.CONSOLE, """
                [{"at":5,"level":"info","text":"hello"},
                {"at":9,"level":"error","text":"seeds is not defined","place":"http://orto/rota:1"}]""");
        list(AttachmentKind.NETWORK, """
                [{"at":5,"method":"GET","url":"http://orto/rota","type":"document","status":200,"micros":90,"bytes":12},
                {"at":9,"method":"GET","url":"http://orto/gone.png","type":"image","status":404,"micros":50,"bytes":1}]""");
        recorder.endTest(test, TestEnd.passed());
    }

    private void list(String kind, String json) {
        var content = new ByteArrayInputStream(json.getBytes(StandardCharsets.UTF_8));
        recorder.attach(recorder.currentScope(), kind, kind, content, MediaType.JSON, 0);
    }

    @Test
    void keys_turn_to_the_neighbours_and_to_the_next_failure() throws Exception {
        chromium.open(page(this::smallRun), "#/test/sample.RotaTest.shows()");
        chromium.find(".entries, .empty");

        chromium.press("n");
        assertThat(chromium.text(".test h1")).isEqualTo("waits for spring");
        chromium.press("p");
        assertThat(chromium.text(".test h1")).isEqualTo("shows the days");
        chromium.press("f");
        assertThat(chromium.text(".test h1")).isEqualTo("swaps two days");
        chromium.driver.navigate().back();
        assertThat(chromium.text(".test h1")).isEqualTo("shows the days");
    }

    @Test
    void the_list_of_tests_finds_filters_groups_and_remembers_it_in_its_address() throws Exception {
        chromium.open(page(this::smallRun), "#/tests");

        assertThat(chromium.texts(".row-line .name"))
                .containsExactly("shows the days", "waits for spring", "swaps two days", "grows");
        assertThat(chromium.texts(".group-line h2")).containsExactly("Rota page", "SeedTest");
        chromium.find(".filters button:not(.quick)").click();
        assertThat(chromium.texts(".row-line .name")).containsExactly("swaps two days");
        assertThat(chromium.driver.getCurrentUrl()).endsWith("#/tests?outcome=failed");
        chromium.open(
                Path.of(URI.create(chromium.driver.getCurrentUrl().replaceAll("#.*", ""))),
                "#/tests?find=PLOT%3D12&group=tag");
        assertThat(chromium.texts(".row-line .name")).containsExactly("swaps two days");
        assertThat(chromium.texts(".group-line h2")).containsExactly("rota");
        chromium.press("/");
        chromium.driver.switchTo().activeElement().sendKeys(" nothing-like-it");
        assertThat(chromium.text(".empty")).startsWith("Nothing here matches");
    }

    @Test
    void a_class_of_one_name_in_two_modules_is_two_groups_and_a_group_says_of_how_many() throws Exception {
        for (String module : List.of("beds", "shed")) {
            recorder = AdapterRecorder.open(RecorderOptions.defaults()
                    .withRoot(root)
                    .withRun("both")
                    .withSummaryLine(false)
                    .withSettings(Map.of("verbale.module", module)));
            for (String name : List.of("swaps", "grows", "waits")) {
                Scope test = recorder.startTest(recorder.run(), descriptor(name, name));
                boolean fails = module.equals("shed") && name.equals("grows");
                recorder.endTest(test, fails ? TestEnd.threw(new AssertionError("dry")) : TestEnd.passed());
            }
        }
        Path index = writtenTo("page");

        chromium.open(index, "");
        chromium.find("a[href='#/tests?group=module']").click();
        assertThat(chromium.texts(".group-line h2")).containsExactly("beds", "shed");
        chromium.open(index, "#/tests?outcome=failed");
        assertThat(chromium.texts(".group-line h2")).containsExactly("shed › sample.RotaTest");
        assertThat(chromium.texts(".group-line .dim")).containsExactly("1 of 1 test did not pass, of 3 in all");
        chromium.open(index, "#/tests?module=beds");
        assertThat(chromium.texts(".row-line .name")).containsExactly("swaps", "grows", "waits");
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void nothing_that_a_test_logged_can_run() throws Exception {
        Path index = page(() -> {
            recorder.fact(HOSTILE, HOSTILE);
            Scope container = recorder.startContainer(
                    recorder.run(),
                    TestDescriptor.of(HOSTILE, HOSTILE).className(HOSTILE).build());
            Scope test = recorder.startTest(
                    container,
                    TestDescriptor.of("hostile", HOSTILE)
                            .className(HOSTILE)
                            .tags(List.of(HOSTILE, "__proto__"))
                            .build());
            recorder.data("__proto__", HOSTILE);
            recorder.data(HOSTILE, "javascript:window.ran=1");
            recorder.log(HOSTILE + "\u2028\u2029");
            recorder.attach(HOSTILE + ".html", HOSTILE.getBytes(StandardCharsets.UTF_8), MediaType.HTML);
            recorder.attach(
                    "image.svg",
                    ("<svg xmlns='http://www.w3.org/2000/svg' onload='window.ran=1'/>")
                            .getBytes(StandardCharsets.UTF_8),
                    MediaType.of("image/svg+xml"));
            recorder.attach("disguised.html", HOSTILE.getBytes(StandardCharsets.UTF_8), MediaType.PNG);
            recorder.attach(
                    "script.js", "window.ran=1".getBytes(StandardCharsets.UTF_8), MediaType.of("text/javascript"));
            recorder.startStep(HOSTILE).failed(new IllegalStateException(HOSTILE));
            recorder.endTest(test, TestEnd.threw(new AssertionError(HOSTILE + "\n" + HOSTILE)));
            recorder.endContainer(container, TestEnd.passed(), 0);
        });

        for (String hash : List.of(
                "",
                "#/tests",
                "#/tests?group=reason&find=%3Cscript",
                "#/test/hostile",
                "#/test/run",
                "#/test/%3Cimg%20src=x%20onerror=%22window.ran=1%22%3E")) {
            chromium.open(index, hash);
            chromium.find("main h1, main .lines");
            assertThat(chromium.script("return window.ran")).as("at " + hash).isNull();
        }
        chromium.open(index, "#/test/hostile");
        for (int number = 1; number <= 4; number++) {
            chromium.find(".thumbnails .thumbnail:nth-child(" + number + ")").click();
            chromium.find(".viewer .attachment-text, .viewer .image-viewer, .viewer .large, .viewer .reason");
            chromium.escape();
        }
        assertThat(chromium.script("return window.ran")).isNull();
        assertThat(chromium.text(".test h1")).isEqualTo(HOSTILE);
        try (Stream<Path> attachments = Files.walk(index.resolveSibling("attachments"))) {
            assertThat(attachments.filter(Files::isRegularFile))
                    .hasSize(4)
                    .allMatch(attachment -> attachment.toString().endsWith(".txt"));
        }
    }

    @Test
    void the_page_asks_for_nothing_but_its_own_files() throws Exception {
        Path index = page(this::smallRun);

        chromium.requests();
        chromium.open(index, "#/test/sample.RotaTest.swaps()");
        chromium.find(".thumbnail img");

        assertThat(chromium.requests())
                .isNotEmpty()
                .allMatch(
                        address -> address.startsWith(index.getParent().toUri().toASCIIString())
                                || address.startsWith("data:font")
                                || address.equals("about:blank"));
        assertThat(chromium.find("meta[http-equiv=Content-Security-Policy]").getDomAttribute("content"))
                .contains("default-src 'none'");
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void the_page_is_whole_on_a_telephone_and_in_the_dark() throws Exception {
        Path index = page(this::smallRun);
        chromium.resize(400, 800);
        try {
            for (String hash : List.of("", "#/tests", "#/test/sample.RotaTest.swaps()")) {
                chromium.open(index, hash);
                chromium.find("main");
                assertThat((Long) chromium.script("return document.documentElement.scrollWidth"))
                        .as("width at " + hash)
                        .isLessThanOrEqualTo(400);
            }
        } finally {
            chromium.resize(1280, 800);
        }
        String light = background();
        chromium.find(".theme").click();
        assertThat(background()).isNotEqualTo(light);
        chromium.find(".theme").click();
        assertThat(background()).isEqualTo(light);
    }

    @Test
    @ByNight
    void a_hundred_thousand_lines_are_no_more_in_the_document_than_fit() throws Exception {
        Path index = page(() -> {
            for (int i = 0; i < 100_000; i++) {
                Scope test = recorder.startTest(
                        recorder.run(),
                        TestDescriptor.of("k" + i, "test " + i)
                                .className("sample.C" + i / 500)
                                .build());
                recorder.endTest(test, i % 100 == 0 ? TestEnd.threw(new AssertionError("weeds")) : TestEnd.passed());
            }
        });

        chromium.open(index, "#/tests?group=nothing");
        chromium.find(".row-line");
        assertThat(chromium.texts(".row-line")).hasSizeLessThan(60);
        chromium.script("scrollTo(0, document.body.scrollHeight)");
        assertThat(chromium.find("a.row-line[href$=k99999]").isDisplayed()).isTrue();
        chromium.open(index, "");
        chromium.find(".strip");
        // a slice of time in which one failed looks failed: how many looks there are depends on how long the recording
        // took
        assertThat(chromium.script("return document.querySelectorAll('.strip path').length"))
                .as("one for each look")
                .isIn(1L, 2L);
        assertThat(chromium.script("return document.querySelectorAll('*').length"))
                .as("elements of the first view")
                .isInstanceOfSatisfying(Long.class, number -> assertThat(number).isLessThan(1_000));
        chromium.open(index, "#/test/k99999");
        assertThat(chromium.text(".test .empty")).isEqualTo("Nothing was recorded in between.");
    }

    @Test
    void each_number_of_the_summary_leads_to_as_many_tests() throws Exception {
        Path index = page(() -> {
            for (int i = 0; i < 40; i++) {
                Scope test = recorder.startTest(
                        recorder.run(),
                        TestDescriptor.of("k" + i, "test " + i)
                                .className("sample." + "ab".charAt(i % 2) + ".C" + i % 15)
                                .tags(List.of("odd", "even").subList(i % 2, 2))
                                .build());
                recorder.endTest(test, i % 3 == 0 ? TestEnd.threw(new AssertionError("weeds " + i)) : TestEnd.passed());
            }
        });
        chromium.open(index, "");
        chromium.find(".groups");
        @SuppressWarnings("unchecked")
        var links = (List<List<String>>) chromium.script(
                "return [...document.querySelectorAll('.groups tr')].filter(row => row.querySelector('a')).flatMap(row => {"
                        + "const number = row.querySelector('.number').textContent;"
                        + "const links = [[row.querySelector('th a').hash, number.replace(/^.* of /, '').replace(/,.*/, '')]];"
                        + "const bad = row.querySelector('a.attention');"
                        + "return bad ? [...links, [bad.hash, bad.textContent]] : links; })");
        assertThat(links).hasSizeGreaterThan(25);

        for (List<String> link : links) {
            chromium.follow(link.get(0));
            assertThat(chromium.text(".found [role=status]"))
                    .as(link.toString())
                    .startsWith(link.get(1) + " ");
        }
    }

    @Test
    void search_finds_what_was_recorded_of_failures_and_words_in_any_order() throws Exception {
        Path index = page(this::smallRun);
        chromium.open(index, "#/tests?find=" + "weeds%20nowhere");
        assertThat(chromium.text(".empty")).startsWith("Nothing here matches.");

        for (String words : List.of("monday%20waters", "PageTest.java", "ada%20WATERS", "thursday%20rota")) {
            chromium.open(index, "#/tests?find=" + words);
            chromium.waitFor("return document.querySelectorAll('.row-line').length === 1");
            assertThat(chromium.text(".row-line .name")).as(words).isEqualTo("swaps two days");
        }
    }

    @Test
    void without_javascript_the_sentence_the_reasons_and_their_tests_are_there_and_no_markup_of_theirs()
            throws Exception {
        String hostile = "</noscript><script>alert(1)</script><b onclick=\"x\">'&";
        Path index = page(() -> {
            Scope test = recorder.startTest(
                    recorder.run(),
                    TestDescriptor.of("k", hostile).className("sample.C").build());
            recorder.endTest(test, TestEnd.threw(new AssertionError(hostile)));
        });

        String html = Files.readString(index);
        String plain = html.substring(html.indexOf("<div id=\"page\">"), html.indexOf("<script>"));

        assertThat(plain)
                .contains("1 of 1 test did not pass", "<b>1</b> failed", "&lt;/noscript&gt;&lt;script&gt;alert(1)")
                .doesNotContain("<script", "onclick=\"");
        chromium.withoutScripts(index);
        assertThat(chromium.text("h1.sentence")).startsWith("1 of 1 test did not pass");
        assertThat(chromium.texts(".reason-tests li")).hasSize(1);
        chromium.withScripts();
    }

    @Test
    void a_page_without_its_rows_says_so_and_still_has_its_summary() throws Exception {
        Path index = page(this::smallRun);
        Files.delete(index.resolveSibling("data/rows/0.js"));

        chromium.open(index, "");
        assertThat(chromium.text(".sentence")).startsWith("1 of 4 tests");
        assertThat(chromium.texts(".reasons h3")).hasSize(1);
        chromium.open(index, "#/tests");
        assertThat(chromium.text(".lost h1")).isEqualTo("The list of tests is not whole");
        chromium.complaints(); // of the file that is gone
    }

    @Test
    void the_same_run_gives_the_same_bytes() throws Exception {
        page(this::smallRun);

        assertThat(bytes(writtenTo("one")))
                .isEqualTo(bytes(writtenTo("two")))
                .containsKeys("index.html", "data/run.js");
    }

    @Test
    void a_page_is_replaced_whole_and_nothing_else_ever_is() throws Exception {
        page(this::smallRun);
        Path target = writtenTo("site").getParent();
        Files.writeString(target.resolve("data/tests/99.js"), "of an earlier page");
        Files.writeString(
                target.resolve("data/files.txt"),
                Files.readString(target.resolve("data/files.txt")) + "data/tests/99.js\n");
        Files.writeString(target.resolve("CNAME"), "tests.orto.example");
        Path foreign = Files.createDirectory(root.resolve("holiday-images"));
        Files.writeString(foreign.resolve("beach.txt"), "sun");

        writtenTo("site");

        assertThat(target.resolve("data/tests/99.js")).doesNotExist();
        assertThat(target.resolve("CNAME")).hasContent("tests.orto.example");
        assertThatThrownBy(() -> Page.write(RunReader.read(root), foreign))
                .isInstanceOf(FileAlreadyExistsException.class)
                .hasMessageContaining("no page of Verbale's");
        assertThat(foreign).isDirectoryContaining("glob:**/beach.txt");
        try (Stream<Path> left = Files.list(root)) {
            assertThat(left).noneMatch(file -> file.getFileName().toString().startsWith(".verbale-page"));
        }
    }

    @Test
    void attempts_are_inside_their_test_and_a_test_that_was_cut_off_says_where() throws Exception {
        Path index = page(() -> {
            for (int attempt = 1; attempt <= 3; attempt++)
                ended(
                        recorder.run(),
                        "shaky",
                        "shaky",
                        attempt < 3 ? TestEnd.threw(new AssertionError("wind " + attempt)) : TestEnd.passed());
            recorder.startTest(recorder.run(), descriptor("cut", "cut off"));
            recorder.startStep("Open the gate").passed();
        });

        chromium.open(index, "#/tests");
        assertThat(chromium.texts(".row-line .name")).containsExactly("shaky", "cut off");
        assertThat(chromium.texts(".row-line .under"))
                .containsExactly(
                        "Flaky: passed on attempt 3. The one before: wind 2", "last step that ended: Open the gate");
        chromium.find(".row-line").click();
        assertThat(chromium.text(".test .reason"))
                .isEqualTo("Flaky: passed on attempt 3. Attempt 1 failed, 2 failed, 3 passed");
        chromium.find(".test .reason a").click();
        assertThat(chromium.text(".failure .message")).isEqualTo("wind 1");
        assertThat(chromium.complaints()).isEmpty();
    }

    /** A key that is half a character, a message of megabytes, steps three thousand deep: read and drawn at once. */
    @Test
    void the_page_opens_whatever_a_test_was_called_and_said() throws Exception {
        Path index = page(() -> {
            recorder.endTest(
                    recorder.startTest(
                            recorder.run(),
                            TestDescriptor.of("sample.\uD83C()", "half \uD83C").build()),
                    TestEnd.threw(new AssertionError("<".repeat(3_000_000))));
            Scope deep = recorder.startTest(recorder.run(), descriptor("deep", "deep"));
            for (int i = 0; i < 3_000; i++) recorder.startStep("step " + i);
            recorder.endTest(deep, TestEnd.passed());
        });

        chromium.open(index, "");
        assertThat(chromium.text(".sentence")).startsWith("1 of 2 tests did not pass");
        assertThat(chromium.text(".reasons h3")).hasSizeLessThan(600);
        chromium.find(".reasons a").click();
        assertThat(chromium.text(".failure .message")).hasSizeLessThan(10_000).contains("3000000 characters");
        chromium.open(index, "#/test/sample.RotaTest.deep()");
        assertThat(chromium.text(".log-line")).contains("steps lie deeper than 100 in each other");
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void a_page_without_its_data_says_what_is_missing() throws Exception {
        Path index = page(this::smallRun);
        Files.delete(index.resolveSibling("data/tests/0.js"));
        chromium.open(index, "#/test/sample.RotaTest.swaps()");
        assertThat(chromium.text(".reason")).contains("missing beside the page");

        Files.delete(index.resolveSibling("data/run.js"));
        chromium.open(index, "");
        assertThat(chromium.text("[role=alert]")).contains("The data of this page is missing");
        chromium.complaints(); // the browser says that the files are missing, and is right
    }

    @Test
    void a_run_that_is_not_wanted_leaves_the_page_that_is_there_and_nothing_beside_it() throws Exception {
        Path index = page(this::smallRun);
        Map<String, String> before = bytes(index);
        List<String> beside = names(root);

        Page.Written written = Page.write(
                new RunFolder(recorder.folder()),
                index.getParent(),
                PageOptions.PLAIN,
                run -> run.tests().isEmpty());

        assertThat(written.index()).isNull();
        assertThat(written.run().tests()).hasSize(4);
        assertThat(bytes(index)).isEqualTo(before);
        assertThat(names(root)).isEqualTo(beside);
    }

    private static List<String> names(Path folder) throws IOException {
        try (Stream<Path> inside = Files.list(folder)) {
            return inside.map(Path::toString).sorted().toList();
        }
    }

    /** A viewer of archives unpacks the one file that was opened, and nothing beside it. */
    @Test
    void the_index_alone_still_says_what_the_run_came_to() throws Exception {
        Path index = page(this::smallRun);
        Path alone = Files.createDirectories(root.resolve("opened in a zip")).resolve("index.html");
        Files.copy(index, alone);

        chromium.open(alone, "");

        assertThat(chromium.text("[role=alert]")).contains("verbale page --single-file");
        assertThat(chromium.text("h1")).isEqualTo("1 of 4 tests did not pass: 1 failed, for one reason.");
        assertThat(chromium.text(".reasons")).contains("swaps two days");
        assertThat(chromium.text("body")).doesNotContain("needs JavaScript");
        chromium.complaints(); // the browser says that the files are missing, and is right
    }

    private void smallRun() {
        recorder.fact("season", "summer");
        Scope rota = recorder.startContainer(
                recorder.run(),
                TestDescriptor.of("sample.RotaTest", "Rota page")
                        .className("sample.RotaTest")
                        .build());
        ended(rota, "shows", "shows the days", TestEnd.passed());
        ended(rota, "waits", "waits for spring", TestEnd.skipped("next season"));
        Scope test = recorder.startTest(rota, descriptor("swaps", "swaps two days"));
        recorder.startStep(StepKind.SET_UP, "open the rota").passed();
        recorder.data("plot", 12);
        recorder.log("Monday waters Ada");
        recorder.startStep("Swap Monday with Thursday").passed();
        recorder.register(new TwoAttachments());
        var failure = new AssertionError("Thursday after the swap");
        Step compare = recorder.startStep("Compare");
        compare.failed(failure);
        recorder.endTest(test, TestEnd.threw(failure));
        recorder.endContainer(rota, TestEnd.passed(), 0);
        Scope seeds = recorder.startContainer(
                recorder.run(),
                TestDescriptor.of("sample.SeedTest", "SeedTest")
                        .className("sample.SeedTest")
                        .build());
        ended(seeds, "grows", "grows", TestEnd.passed());
        recorder.endContainer(seeds, TestEnd.passed(), 0);
    }

    private void ended(Scope in, String method, String name, TestEnd testEnd) {
        recorder.endTest(recorder.startTest(in, descriptor(method, name)), testEnd);
    }

    private static TestDescriptor descriptor(String method, String name) {
        List<String> tags = method.equals("swaps") ? List.of("rota") : List.of();
        return TestDescriptor.of("sample.RotaTest." + method + "()", name)
                .className("sample.RotaTest")
                .methodName(method)
                .tags(tags)
                .build();
    }

    /** What a browser gives. */
    private static final class TwoAttachments implements EvidenceSource {
        @Override
        public String name() {
            return "browser";
        }

        @Override
        public void capture(Evidence evidence) {
            evidence.attach("screenshot", AttachmentKind.SCREENSHOT, DOT, MediaType.PNG);
            evidence.attach(
                    "page source",
                    AttachmentKind.PAGE_SOURCE,
                    "<h1>Rota</h1>".getBytes(StandardCharsets.UTF_8),
                    MediaType.HTML);
        }
    }

    private Path page(Runnable recording) throws IOException {
        recorder =
                AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
        recording.run();
        return writtenTo("page with spaces & ünicode");
    }

    private Path writtenTo(String folder) throws IOException {
        return Page.write(RunReader.read(root), root.resolve(folder));
    }

    private static String background() {
        return String.valueOf(chromium.script("return getComputedStyle(document.documentElement).backgroundColor"));
    }

    private static Map<String, String> bytes(Path index) throws IOException {
        Map<String, String> contents = new TreeMap<>();
        Path folder = index.getParent();
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.filter(Files::isRegularFile).toList())
                contents.put(folder.relativize(file).toString(), Arrays.toString(Files.readAllBytes(file)));
        }
        return contents;
    }
}
