package dev.verbale.benchmarks;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What sending from the tests' own JVM costs a suite: JVMs of {@link SentSuite} that do not send, that send to a hub, to none, and to one that
 * never answers, take turns. Arguments: the tests of each of two threads, and the rounds.
 */
public final class SenderOverhead {

    private static final Pattern LINE = Pattern.compile("cpu ([\\d.]+) sending ([\\d.]+) p99 ([\\d.]+)");

    private SenderOverhead() {}

    private record Cost(double cpu, double sending, double p99) {}

    public static void main(String[] arguments) throws Exception {
        int tests = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 400;
        int rounds = arguments.length > 1 ? Integer.parseInt(arguments[1]) : 5;
        Path folder = Files.createTempDirectory("sender-overhead");
        try (var hub = new StartedHub(folder.resolve("hub"), List.of());
                var deaf = new ServerSocket(0, 100, InetAddress.getLoopbackAddress())) {
            String token = hub.token("send");
            Map<String, String> hubs = new LinkedHashMap<>();
            hubs.put("sends nothing", "off");
            hubs.put("to a hub", hub.address.toString());
            hubs.put("to none", "http://127.0.0.1:1");
            hubs.put("to a deaf one", "http://127.0.0.1:" + deaf.getLocalPort());
            Map<String, List<Cost>> costs = new LinkedHashMap<>();
            for (int round = 0; round < rounds; round++)
                for (var one : hubs.entrySet())
                    costs.computeIfAbsent(one.getKey(), name -> new ArrayList<>())
                            .add(run(folder.resolve("runs"), one.getValue(), token, tests));
            double bare = Figures.median(costs.getOrDefault("sends nothing", List.of()), Cost::cpu);
            System.out.println("                 CPU ms a suite  more, %   of it its threads', %   a call's p99, µs");
            costs.forEach((name, all) -> System.out.printf(
                    Locale.ROOT,
                    "%-15s  %14.0f  %7.1f  %21.2f  %18.1f%n",
                    name,
                    Figures.median(all, Cost::cpu),
                    100 * (Figures.median(all, Cost::cpu) / bare - 1),
                    Figures.median(all, one -> 100 * one.sending() / one.cpu()),
                    Figures.median(all, Cost::p99)));
        }
    }

    private static Cost run(Path root, String hub, String token, int tests) throws IOException, InterruptedException {
        var builder = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Dverbale.root=" + root,
                        "-Dverbale.summary-line=false",
                        "-Dverbale.page=off",
                        "-Dverbale.hub=" + hub,
                        "-Dverbale.hub.project=" + StartedHub.PROJECT,
                        "-cp",
                        System.getProperty("java.class.path"),
                        SentSuite.class.getName(),
                        String.valueOf(tests))
                .redirectErrorStream(true);
        builder.environment().put("VERBALE_HUB_TOKEN", token);
        Process jvm = builder.start();
        String output = new String(jvm.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        Matcher line = LINE.matcher(output);
        if (jvm.waitFor() != 0 || !line.find()) throw new IllegalStateException(output);
        return new Cost(
                Double.parseDouble(line.group(1)),
                Double.parseDouble(line.group(2)),
                Double.parseDouble(line.group(3)));
    }
}
