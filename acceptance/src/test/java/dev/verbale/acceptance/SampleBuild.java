package dev.verbale.acceptance;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunFolder;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.testing.Jvm;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** A Maven project of two modules outside of ours, built by Maven itself, without a network. */
final class SampleBuild {

    private final Path folder;

    SampleBuild(Path folder) {
        this.folder = folder;
    }

    /** Maven with those arguments. */
    Jvm maven(String... arguments) throws Exception {
        return maven(folder, arguments);
    }

    /** Maven with those arguments in any folder, without a network. */
    static Jvm maven(Path folder, String... arguments) throws Exception {
        return WarmMaven.shared().build(folder, offline(arguments));
    }

    /** The same in a process of its own, as a user's build is. */
    Jvm mavenOfItsOwn(String... arguments) throws Exception {
        return mavenOfItsOwn(Map.of(), arguments);
    }

    /** That, with more in its environment. */
    Jvm mavenOfItsOwn(Map<String, String> environment, String... arguments) throws Exception {
        List<String> command = new ArrayList<>(List.of("mvn"));
        command.addAll(offline(arguments));
        Map<String, String> all = new HashMap<>(environment);
        all.put("MAVEN_OPTS", String.join(" ", Jvm.SHORT));
        return Jvm.run(all, folder, command);
    }

    private static List<String> offline(String... arguments) {
        List<String> all =
                new ArrayList<>(List.of("-B", "-o", "-Dmaven.repo.local=" + System.getProperty("maven.repository")));
        all.addAll(List.of(arguments));
        all.add("-DargLine=" + String.join(" ", Jvm.SHORT)); // of the JVMs that it forks
        return all;
    }

    List<RunFolder> runs() throws Exception {
        return new ResultsRoot(folder.resolve("target/verbale")).runs();
    }

    /** The only run that there is. */
    Run run() throws Exception {
        List<RunFolder> runs = runs();
        if (runs.size() != 1) throw new AssertionError("not one run: " + runs);
        return RunReader.read(runs.get(0).path());
    }

    void write(String name, String content) throws Exception {
        Path file = folder.resolve(name);
        Files.createDirectories(file.getParent());
        Files.writeString(file, content);
    }

    static String testClass(String name, String more) {
        return "import org.junit.jupiter.api.Test;\nclass " + name + " { @Test void grows() {} " + more + " }\n";
    }

    /** @param plugins besides those that every build has */
    static String parent(String plugins) {
        return """
                <project xmlns="http://maven.apache.org/POM/4.0.0">
                  <modelVersion>4.0.0</modelVersion>
                  <groupId>sample</groupId><artifactId>garden</artifactId><version>1</version><packaging>pom</packaging>
                  <modules><module>beds</module><module>shed</module></modules>
                  <properties>
                    <maven.compiler.release>17</maven.compiler.release>
                    <project.build.sourceEncoding>UTF-8</project.build.sourceEncoding>
                  </properties>
                  <dependencies>
                    <dependency>
                      <groupId>org.junit.jupiter</groupId><artifactId>junit-jupiter</artifactId><version>%s</version>
                      <scope>test</scope>
                    </dependency>
                    <dependency>
                      <groupId>dev.verbale</groupId><artifactId>verbale-junit</artifactId><version>%s</version>
                      <scope>test</scope>
                    </dependency>
                  </dependencies>
                  <build><plugins>
                    <plugin><artifactId>maven-resources-plugin</artifactId><version>3.5.0</version></plugin>
                    <plugin><artifactId>maven-compiler-plugin</artifactId><version>3.16.0</version></plugin>
                    <plugin><artifactId>maven-surefire-plugin</artifactId><version>%s</version></plugin>
                    %s
                  </plugins></build>
                </project>
                """.formatted(
                        System.getProperty("junit.version"),
                        System.getProperty("tested.version"),
                        System.getProperty("surefire.version"),
                        plugins);
    }

    static String module(String name, String surefire, String plugin) {
        return """
                <project xmlns="http://maven.apache.org/POM/4.0.0">
                  <modelVersion>4.0.0</modelVersion>
                  <parent><groupId>sample</groupId><artifactId>garden</artifactId><version>1</version></parent>
                  <artifactId>%s</artifactId>
                  <build><plugins>
                    <plugin><artifactId>maven-surefire-plugin</artifactId><configuration>%s</configuration></plugin>
                    %s
                  </plugins></build>
                </project>
                """.formatted(name, surefire, plugin);
    }
}
