package dev.verbale.acceptance;

import dev.verbale.testing.Jvm;
import java.io.BufferedReader;
import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.PrintStream;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Properties;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Maven itself in one JVM that builds again and again, as a Maven daemon does: of a build of two small modules more than half is a
 * JVM that gets warm. Not for two builds with one results root without the plugin: there the process is what tells them apart.
 */
final class WarmMaven {

    private static final String END = "\u0001ended with ";

    private static @Nullable WarmMaven shared;

    private final Process process;
    private final Writer in;
    private final BufferedReader out;

    private WarmMaven(Process process) {
        this.process = process;
        in = process.outputWriter(StandardCharsets.UTF_8);
        out = process.inputReader(StandardCharsets.UTF_8);
    }

    /** The one of this JVM, which ends with it. */
    static synchronized WarmMaven shared() throws IOException {
        if (shared == null) {
            WarmMaven started = start();
            Runtime.getRuntime().addShutdownHook(new Thread(started.process::destroy));
            shared = started;
        }
        return shared;
    }

    private static WarmMaven start() throws IOException {
        Path home = Path.of(System.getProperty("maven.home"));
        String boot;
        try (Stream<Path> jars = Files.list(home.resolve("boot"))) {
            boot = jars.map(Path::toString)
                    .filter(name -> name.endsWith(".jar"))
                    .findFirst()
                    .orElseThrow();
        }
        List<String> command = Jvm.command(
                List.of("-Dmaven.home=" + home),
                boot + File.pathSeparator + Path.of("target/test-classes").toAbsolutePath(),
                Builds.class);
        return new WarmMaven(
                new ProcessBuilder(command).redirectErrorStream(true).start());
    }

    /** Builds in {@code folder} with those arguments; one build at a time. */
    synchronized Jvm build(Path folder, List<String> arguments) throws IOException {
        in.write((arguments.size() + 1) + "\n" + folder + "\n" + String.join("\n", arguments) + "\n");
        in.flush();
        var output = new StringBuilder();
        for (String line = out.readLine(); line != null; line = out.readLine()) {
            int end = line.indexOf(END);
            if (end >= 0) return new Jvm(Integer.parseInt(line.substring(end + END.length())), output.toString());
            output.append(line).append('\n');
        }
        throw new IOException("Maven ended in a build: " + output);
    }

    /** What goes on in the other JVM, which has nothing of ours but this class. */
    static final class Builds {

        private Builds() {}

        public static void main(String[] none) throws Exception {
            Path home = Path.of(System.getProperty("maven.home"));
            Class<?> type = Class.forName("org.codehaus.plexus.classworlds.launcher.Launcher");
            Object launcher = type.getConstructor().newInstance();
            type.getMethod("setSystemClassLoader", ClassLoader.class).invoke(launcher, Builds.class.getClassLoader());
            try (InputStream configuration = Files.newInputStream(home.resolve("bin/m2.conf"))) {
                type.getMethod("configure", InputStream.class).invoke(launcher, configuration);
            }
            Object world = type.getMethod("getWorld").invoke(launcher);
            ClassLoader realm = (ClassLoader) type.getMethod("getMainRealm").invoke(launcher);
            Thread.currentThread().setContextClassLoader(realm);
            Class<?> maven = realm.loadClass("org.apache.maven.cli.MavenCli");
            Properties before = (Properties) System.getProperties().clone();
            PrintStream out = System.out;
            var in = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
            for (String count = in.readLine(); count != null; count = in.readLine()) {
                List<String> words = new ArrayList<>();
                for (int i = 0; i < Integer.parseInt(count); i++) words.add(in.readLine());
                String folder = words.remove(0);
                Properties fresh = (Properties) before.clone();
                fresh.setProperty("maven.multiModuleProjectDirectory", folder);
                fresh.setProperty("user.dir", folder);
                System.setProperties(fresh);
                Object code = maven.getMethod(
                                "doMain", String[].class, String.class, PrintStream.class, PrintStream.class)
                        .invoke(
                                maven.getConstructor(world.getClass()).newInstance(world),
                                words.toArray(String[]::new),
                                folder,
                                out,
                                out);
                out.println(END + code);
                out.flush();
            }
        }
    }
}
