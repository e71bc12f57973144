package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.hostile.ByNight;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.testing.Jvm;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;

/**
 * What the recipes for CI systems run, is run: with the archive's command line, in an environment that has nothing but the system's
 * variables, and Maven played by a program that records what a shard would.
 */
class RecipesTest {

    private static final Path DOCUMENT = Path.of("..", "docs", "ci.md");

    /** What GitHub keeps of a job's summary. */
    private static final int SUMMARY_LIMIT = 1 << 20;

    @TempDir
    static Path shared;

    private static Path tools;

    @TempDir
    Path work;

    @BeforeAll
    static void unpack_the_archive() throws Exception {
        Path archive;
        try (Stream<Path> built = Files.list(Path.of("..", "cli", "target"))) {
            archive = built.filter(file -> file.toString().endsWith("-all.zip"))
                    .findFirst()
                    .orElseThrow();
        }
        try (ZipFile zip = new ZipFile(archive.toFile())) {
            for (ZipEntry entry : (Iterable<ZipEntry>) zip.stream().map(ZipEntry.class::cast)::iterator) {
                Path file = shared.resolve(entry.getName());
                if (entry.isDirectory()) continue;
                Files.createDirectories(file.getParent());
                try (InputStream in = zip.getInputStream(entry)) {
                    Files.copy(in, file);
                }
            }
        }
        Path command;
        try (Stream<Path> all = Files.walk(shared)) {
            command =
                    all.filter(file -> file.endsWith("bin/verbale")).findFirst().orElseThrow();
        }
        Files.setPosixFilePermissions(
                command, PosixFilePermissions.fromString("rwxr-xr-x")); // as unzip does, see below
        tools = Files.createDirectories(shared.resolve("tools"));
        Files.createSymbolicLink(
                tools.resolve("java"),
                Path.of(System.getProperty("java.home")).resolve("bin/java").toRealPath());
        script("verbale", "exec '" + command + "' \"$@\"");
        script(
                "mvn",
                "exec java -XX:TieredStopAtLevel=1 -cp '" + Jvm.classPath() + "' " + RecordedShard.class.getName()
                        + " \"$@\"");
    }

    private static void script(String name, String line) throws IOException {
        Path file = Files.writeString(tools.resolve(name), "#!/bin/sh\n" + line + "\n");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rwxr-xr-x"));
    }

    /** How lines of a job ended. */
    private record Ran(int code, String output) {}

    /** In an environment that has {@code variables} and nothing else but where commands are, and an empty home. */
    private static Ran sh(Path folder, Map<String, String> variables, String lines) throws Exception {
        List<String> command = new ArrayList<>(List.of("env", "-i"));
        Path home = Files.createDirectories(folder.resolveSibling("home"));
        command.add("PATH=" + tools + ":/usr/bin:/bin");
        command.add("HOME=" + home);
        variables.forEach((name, value) -> command.add(name + "=" + value));
        command.addAll(List.of("bash", "--noprofile", "--norc", "-e", "-o", "pipefail", "-c", lines));
        Process process = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        process.getOutputStream().close();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        return new Ran(process.waitFor(), output);
    }

    private Path checkout(String name) throws IOException {
        Path folder = Files.createDirectories(work.resolve(name));
        Files.writeString(folder.resolve("verbale-ci.yaml"), recipe("verbale-ci.yaml"));
        Path sources = Files.createDirectories(folder.resolve("src/test/java/sample"));
        Files.writeString(
                sources.resolve("SwapTest.java"), "package sample;\n\nclass SwapTest {\n    void swaps() {}\n}\n");
        return folder;
    }

    private static String recipe(String name) throws IOException {
        Matcher block = Pattern.compile("(?s)<!-- recipe: " + Pattern.quote(name) + " -->\n```\\w+\n(.*?)```")
                .matcher(Files.readString(DOCUMENT));
        assertThat(block.find()).as(name).isTrue();
        return block.group(1);
    }

    private static Map<?, ?> yaml(String name) throws IOException {
        return (Map<?, ?>) new Load(LoadSettings.builder().build()).loadFromString(recipe(name));
    }

    /** What a shard packed, where the last job has it. */
    private static void hand(Path shard, Path result) throws IOException {
        Path there = Files.createDirectories(result.resolve("target/shards"));
        try (Stream<Path> packs = Files.walk(shard.resolve("target"))) {
            for (Path pack :
                    packs.filter(file -> file.toString().endsWith(".zip")).toList())
                Files.copy(pack, there.resolve(pack.getFileName()));
        }
    }

    private static void holds(Ran result, Path folder) throws IOException {
        assertThat(result.code()).as(result.output()).isEqualTo(5);
        assertThat(result.output()).contains("The gate is closed.").doesNotContain("Exception");
        assertThat(folder.resolve("target/page/index.html")).isRegularFile();
        assertThat(folder.resolve("target/failures.zip")).isRegularFile();
        assertThat(folder.resolve("target/tests.xml")).content().contains("no seeds", "tests=\"2\"");
        assertThat(folder.resolve("target/summary.md")).content().contains("no seeds");
        assertThat(Files.size(folder.resolve("target/summary.md"))).isLessThan(SUMMARY_LIMIT);
        try (Stream<Path> remembered = Files.list(folder.resolve(".verbale/history"))) {
            assertThat(remembered).isNotEmpty();
        }
        assertThat(joined(folder).incomplete().isNothing())
                .as("both shards are there")
                .isTrue();
    }

    private static Run joined(Path folder) throws IOException {
        return RunReader.read(folder.resolve("target/verbale/joined"));
    }

    @Test
    void on_github() throws Exception {
        Map<?, ?> jobs = (Map<?, ?>) yaml("github.yaml").get("jobs");
        Path result = checkout("result");
        Map<String, String> variables = new HashMap<>(Map.of(
                "CI", "true",
                "GITHUB_ACTIONS", "true",
                "GITHUB_WORKFLOW", "tests",
                "GITHUB_RUN_NUMBER", "812",
                "GITHUB_RUN_ID", "4711",
                "GITHUB_SERVER_URL", "https://forge.orto.example",
                "GITHUB_REPOSITORY", "orto/garden",
                "GITHUB_REF_NAME", "main",
                "GITHUB_SHA", "0123456789abcdef0123456789abcdef01234567",
                "GITHUB_ACTOR", "ada"));
        for (String shard : List.of("1", "2")) {
            Path folder = checkout("shard-" + shard);
            Ran ran = steps((Map<?, ?>) jobs.get("shard"), folder, variables, Map.of("matrix.shard", shard));
            assertThat(ran.code()).as(ran.output()).isZero();
            hand(folder, result);
        }
        Path summary = Files.createFile(work.resolve("summary"));
        variables.put("GITHUB_STEP_SUMMARY", summary.toString());

        Ran ran = steps((Map<?, ?>) jobs.get("result"), result, variables, Map.of());

        holds(ran, result);
        assertThat(ran.output().lines())
                .anyMatch(line -> line.matches(
                        "::error file=src/test/java/sample/SwapTest\\.java,line=4,title=[^:]+::.*no seeds.*"));
        assertThat(summary).content().contains("no seeds");
        assertThat(joined(result).facts().toString())
                .contains("https://forge.orto.example/orto/garden/actions/runs/4711", "ada", "main");
    }

    /** Those that run something; after one that failed only those that are for always. */
    private static Ran steps(Map<?, ?> job, Path folder, Map<String, String> variables, Map<String, String> known)
            throws Exception {
        int code = 0;
        var output = new StringBuilder();
        for (Object one : (List<?>) job.get("steps")) {
            Map<?, ?> step = (Map<?, ?>) one;
            if (step.get("run") == null || code != 0 && !"always()".equals(step.get("if"))) continue;
            String lines = step.get("run").toString();
            for (var value : known.entrySet()) lines = lines.replace("${{ " + value.getKey() + " }}", value.getValue());
            assertThat(lines).doesNotContain("${{");
            Ran ran = sh(folder, variables, lines);
            output.append(ran.output());
            if (code == 0) code = ran.code();
        }
        return new Ran(code, output.toString());
    }

    @Test
    @ByNight // by day GitHub's, and that of any shell
    void on_gitlab() throws Exception {
        Map<?, ?> jobs = yaml("gitlab.yaml");
        Path result = checkout("result");
        Map<String, String> variables = new HashMap<>(Map.of(
                "CI", "true",
                "GITLAB_CI", "true",
                "CI_JOB_NAME", "shard",
                "CI_JOB_URL", "https://forge.orto.example/orto/-/jobs/17",
                "CI_PIPELINE_ID", "990",
                "CI_COMMIT_REF_NAME", "main",
                "CI_NODE_TOTAL", "2"));
        for (String shard : List.of("1", "2")) {
            variables.put("CI_NODE_INDEX", shard);
            Path folder = checkout("shard-" + shard);
            for (Object line : (List<?>) ((Map<?, ?>) jobs.get("shard")).get("script")) {
                Ran ran = sh(folder, variables, line.toString());
                assertThat(ran.code()).as(ran.output()).isZero();
            }
            hand(folder, result);
        }
        variables.keySet().removeAll(List.of("CI_NODE_INDEX", "CI_NODE_TOTAL"));
        Map<?, ?> last = (Map<?, ?>) jobs.get("result");

        Ran ran = sh(result, variables, lines(last.get("script")));

        holds(ran, result);
        assertThat(ran.output()).contains("src/test/java/sample/SwapTest.java:4");
        assertThat(sh(result, variables, lines(last.get("after_script"))).code())
                .isZero();
        assertThat(result.resolve("target/code-quality.json"))
                .content()
                .contains("\"check_name\"", "\"fingerprint\"", "src/test/java/sample/SwapTest.java");
        assertThat(joined(result).facts().toString()).contains("https://forge.orto.example/orto/-/jobs/17");
    }

    private static String lines(Object script) {
        return String.join(
                "\n", ((List<?>) script).stream().map(Object::toString).toList());
    }

    @Test
    @ByNight
    void on_jenkins() throws Exception {
        Matcher steps = Pattern.compile("(?m)^ *sh '(.*)'").matcher(recipe("Jenkinsfile"));
        List<String> all = new ArrayList<>();
        while (steps.find()) all.add(steps.group(1));
        assertThat(all).hasSize(3);
        Path result = checkout("result");
        Map<String, String> variables = new HashMap<>(Map.of(
                "JENKINS_URL", "https://ci.orto.example/",
                "JOB_NAME", "orto",
                "BUILD_NUMBER", "812",
                "BUILD_URL", "https://ci.orto.example/job/orto/812/"));
        for (String shard : List.of("1", "2")) {
            variables.put("SHARD", shard);
            Path folder = checkout("shard-" + shard);
            for (String line : all.subList(0, 2)) {
                Ran ran = sh(folder, variables, line);
                assertThat(ran.code()).as(ran.output()).isZero();
            }
            hand(folder, result);
        }
        variables.remove("SHARD");

        holds(sh(result, variables, all.get(2)), result);
        assertThat(joined(result).facts().toString()).contains("https://ci.orto.example/job/orto/812/");
    }

    @Test
    void in_any_shell() throws Exception {
        Path folder = checkout("any");

        Ran ran = sh(folder, Map.of(), "bash -c " + quoted(recipe("shell.sh")));

        holds(ran, folder);
        assertThat(folder.resolve("target/again.sh")).content().contains("mvn", "SwapTest#swaps");
    }

    private static String quoted(String text) {
        return "'" + text.replace("'", "'\\''") + "'";
    }

    @Test
    void from_an_empty_folder_the_archive_says_what_to_do() throws Exception {
        Path empty = Files.createDirectories(work.resolve("empty"));

        assertThat(sh(empty, Map.of(), "verbale").output()).startsWith("There is no run in target/verbale");
        assertThat(sh(empty, Map.of(), "verbale --version").output()).startsWith("Verbale ");
        assertThat(sh(empty, Map.of(), "verbale ci").code()).isEqualTo(3);
        assertThat(sh(empty, Map.of(), "find . ../home -type f").output()).isEmpty();
    }
}
