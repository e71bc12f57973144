package dev.verbale.changes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AffectedTestsTest {

    private static final String SEED = "src/main/java/orto/Seed.java";

    @TempDir
    Path folder;

    private SmallProject project;

    @BeforeEach
    void plant() throws Exception {
        project = new SmallProject(folder);
        project.main("Seed", "public class Seed { public int grams() { return 1; } }")
                .main("Library", "public class Library { public Seed lend() { return new Seed(); } }")
                .main("Rota", "public class Rota { public int days() { return 7; } }")
                .test("SeedTest", "class SeedTest { void weighs() { new Seed().grams(); } }")
                .test("LibraryTest", "class LibraryTest { class Lending { Object o = new Library().lend(); } }")
                .test("RotaTest", "class RotaTest { void turns() { new Rota().days(); } }");
    }

    private SmallProject planted() throws Exception {
        return project.commit().compile();
    }

    @Test
    void what_refers_to_a_changed_class_is_affected_at_one_remove_or_more() throws Exception {
        AffectedTests affected = planted().touch(SEED).compile().affected();

        assertThat(affected)
                .isEqualTo(new AffectedTests(
                        false, java.util.List.of(), java.util.Set.of("orto.SeedTest", "orto.LibraryTest"), 3));
        assertThat(affected.selection().forSurefire()).isEqualTo("orto.LibraryTest,orto.SeedTest");
    }

    @Test
    void nothing_changed_affects_nothing() throws Exception {
        assertThat(planted().affected())
                .isEqualTo(new AffectedTests(false, java.util.List.of(), java.util.Set.of(), 3));
    }

    @Test
    void a_changed_and_a_new_test_are_affected_themselves() throws Exception {
        planted()
                .touch("src/test/java/orto/RotaTest.java")
                .test("NewTest", "class NewTest { void grows() {} }")
                .compile();

        assertThat(project.affected().classes()).containsExactlyInAnyOrder("orto.RotaTest", "orto.NewTest");
    }

    /** Each a test that uses {@code Seed} in one way only. */
    static Stream<Map.Entry<String, String>> uses() {
        Map<String, String> uses = new LinkedHashMap<>();
        uses.put("extends", "class %s extends Seed { }");
        uses.put("field", "class %s { Seed seed; }");
        uses.put("parameter", "class %s { void t(Seed seed) { } }");
        uses.put("result", "class %s { Seed t() { return null; } }");
        uses.put("thrown", "class %s { void t() throws Drought { } }");
        uses.put(
                "caught",
                "class %s { void t() { try { run(); } catch (Drought d) { } } void run() throws Drought { } }");
        uses.put("type argument of a field", "class %s { java.util.List<Seed> seeds; }");
        uses.put("bound", "class %s { <S extends Seed> void t() { } }");
        uses.put("array", "class %s { Object t() { return new Seed[1][1]; } }");
        uses.put("class literal", "class %s { Object t() { return Seed.class; } }");
        uses.put("instanceof", "class %s { boolean t(Object o) { return o instanceof Seed; } }");
        uses.put("cast", "class %s { Object t(Object o) { return (Seed) o; } }");
        uses.put("method reference", "class %s { java.util.function.Supplier<?> t() { return Seed::new; } }");
        uses.put("lambda", "class %s { Runnable t() { return () -> new Seed().grams(); } }");
        uses.put("annotation", "@Sown class %s { }");
        uses.put("annotation on a parameter", "class %s { void t(@Sown int bed) { } }");
        uses.put("record component", "class %s { record Bed(Seed seed) { } }");
        uses.put(
                "enum in a switch",
                "class %s { int t(Season s) { return switch (s) { case SPRING -> 1; default -> 2; }; } }");
        uses.put("static call", "class %s { void t() { Seed.sow(); } }");
        uses.put("inherited call", "class %s extends Bean { void t() { grams(); } }");
        uses.put("nested class", "class %s { class Deep { class Deeper { Seed seed; } } }");
        uses.put("anonymous class", "class %s { Object t() { return new Seed() { }; } }");
        uses.put(
                "local variable's method",
                "class %s { int t() { var seed = new Library().lend(); return seed.grams(); } }");
        return uses.entrySet().stream();
    }

    /** One project with all of them: each is its own proof, and is compiled once. */
    @Test
    void whatever_way_a_test_uses_a_class_it_is_affected() throws Exception {
        project.main(
                "Seed",
                "public class Seed { public int grams() { return 1; } public static void sow() { } }\n"
                        + "class Drought extends Exception { }\n"
                        + "@java.lang.annotation.Retention(java.lang.annotation.RetentionPolicy.RUNTIME) @interface Sown { }\n"
                        + "enum Season { SPRING, AUTUMN }\n"
                        + "class Bean extends Seed { }");
        Map<String, String> names = new LinkedHashMap<>();
        for (Map.Entry<String, String> use : uses().toList()) {
            String name = "Using" + names.size() + "Test";
            names.put("orto." + name, use.getKey());
            project.test(name, String.format(use.getValue(), name));
        }
        planted().touch(SEED).compile();

        AffectedTests affected = project.affected();

        names.forEach((name, use) -> assertThat(affected.classes()).as(use).contains(name));
        assertThat(affected.everything()).isFalse();
        assertThat(affected.classes()).doesNotContain("orto.RotaTest");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "src/main/resources/beds.txt | is no source of a class",
                "pom.xml | is no source of a class",
                "src/main/resources/META-INF/services/orto.Seed | is no source of a class",
                "src/main/java/orto/package-info.java | is about more than one class",
                "src/main/java/orto/Lonely.java | is referred to by no class"
            })
    void what_cannot_be_seen_asks_for_everything_and_says_so(String file, String why) throws Exception {
        planted()
                .write(file, file.endsWith("Lonely.java") ? "package orto; class Lonely { }" : "package orto;")
                .compile();

        AffectedTests affected = project.affected();

        assertThat(affected.everything()).isTrue();
        assertThat(affected.because()).singleElement().asString().contains(why);
        assertThat(affected.classes()).containsExactlyInAnyOrder("orto.SeedTest", "orto.LibraryTest", "orto.RotaTest");
    }

    @Test
    void constants_providers_and_what_is_gone_ask_for_everything() throws Exception {
        project.main("Beds", "class Beds { static final int MANY = 12; int few() { return 1; } }")
                .main("Finder", "public class Finder extends Seed { }")
                .write("target/classes/META-INF/services/orto.Seed", "# ours\norto.Finder # the only one\n")
                .test("BedsTest", "class BedsTest { @Deprecated(since = \"\" + Beds.MANY) Object o = new Beds(); }")
                .test("FinderTest", "class FinderTest { Object o = new Finder(); }");
        planted();

        assertThat(project.touch("src/main/java/orto/Beds.java")
                        .compile()
                        .affected()
                        .because())
                .singleElement()
                .asString()
                .contains("orto.Beds has constants");
        assertThat(project.commit()
                        .touch("src/main/java/orto/Finder.java")
                        .compile()
                        .affected()
                        .because())
                .singleElement()
                .asString()
                .contains("service file");
        project.commit();
        Files.delete(folder.resolve("src/test/java/orto/RotaTest.java"));
        assertThat(project.affected().because()).singleElement().asString().contains("is gone");
    }

    @Test
    void files_that_are_ignored_ask_for_nothing() throws Exception {
        planted()
                .write("docs/a/beds.md", "x")
                .write("README.md", "x")
                .touch(SEED)
                .compile();

        assertThat(project.affected().everything()).isTrue();
        assertThat(project.affected("docs/**", "*.md").classes())
                .containsExactlyInAnyOrder("orto.SeedTest", "orto.LibraryTest");
    }

    @Test
    void what_is_no_pattern_is_refused() throws Exception {
        planted();

        assertThatThrownBy(() -> project.affected("docs/["))
                .isInstanceOf(ChangesException.class)
                .hasMessageContaining("'docs/['");
    }

    @Test
    void what_was_not_compiled_since_is_refused() throws Exception {
        planted();
        Files.writeString(folder.resolve(SEED), "package orto; public class Seed { }");
        Files.setLastModifiedTime(
                folder.resolve(SEED),
                java.nio.file.attribute.FileTime.from(java.time.Instant.now().plusSeconds(60)));
        assertThatThrownBy(() -> project.affected())
                .isInstanceOf(ChangesException.class)
                .hasMessageContaining("newer than its class");

        project.git("checkout", "-q", "--", SEED);
        project.touch(SEED).compile().commit().test("FreshTest", "class FreshTest { }");
        assertThatThrownBy(() -> project.affected())
                .isInstanceOf(ChangesException.class)
                .hasMessageContaining("Compile it first");
    }

    @ParameterizedTest
    @CsvSource({"no-such-branch", "'--output=/tmp/x'", "''", "' '", "'HEAD; rm -rf x'", "HEAD~99"})
    void what_is_no_commit_is_refused(String commit) throws Exception {
        planted();

        assertThatThrownBy(() -> ChangedFiles.since(folder, commit))
                .isInstanceOf(ChangesException.class)
                .hasMessageContaining("commit");
    }

    @Test
    void names_that_mean_something_to_git_or_a_shell_are_names() throws Exception {
        planted().write("a\nb \"c\" $d.txt", "x").write("-x.md", "x").write("Kürbis.md", "x");

        assertThat(ChangedFiles.since(folder, "HEAD").names())
                .containsExactlyInAnyOrder("a\nb \"c\" $d.txt", "-x.md", "Kürbis.md");
    }

    @Test
    void no_repository_and_no_tests_are_said(@TempDir Path elsewhere) throws Exception {
        assertThatThrownBy(() -> ChangedFiles.since(elsewhere, "HEAD"))
                .isInstanceOf(ChangesException.class)
                .hasMessageContaining("not a git repository");
        project.commit();
        assertThatThrownBy(() -> project.affected())
                .isInstanceOf(ChangesException.class)
                .hasMessageContaining("no compiled tests");
    }
}
