package dev.verbale.query;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/** A PostgreSQL server of this test's own, in a temporary folder. {@code bin/database} installs it. */
public final class PostgresServer implements AutoCloseable {

    private final Path folder;
    private final Path programs;
    private final int port;
    private int databases;

    private PostgresServer(Path folder, Path programs, int port) {
        this.folder = folder;
        this.programs = programs;
        this.port = port;
    }

    /** With the roles {@code owner} (password {@code owner's}) and {@code may_read} ({@code reader's}). */
    public static PostgresServer start() throws Exception {
        Path folder = Files.createTempDirectory("postgres");
        Path programs = programs();
        int port;
        try (var free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        var server = new PostgresServer(folder, programs, port);
        if (isRoot()) run(List.of("chown", "postgres", folder.toString()));
        server.asServer(
                "initdb",
                "-D",
                folder + "/data",
                "-U",
                "postgres",
                "--auth=scram-sha-256",
                "--pwfile=" + server.password());
        server.begin();
        server.sql(
                "postgres",
                "create role owner login password 'owner''s'",
                "create role may_read login password 'reader''s'");
        return server;
    }

    /** Again, where it was {@link #crash ended}. */
    public void begin() throws Exception {
        asServer(
                "pg_ctl",
                "-D",
                folder + "/data",
                "-l",
                folder + "/log",
                "-w",
                "-t",
                "60",
                "-o",
                "-c listen_addresses=127.0.0.1 -c port=" + port + " -c fsync=off -c unix_socket_directories=" + folder,
                "start");
    }

    /** Ends it in the middle of whatever it does, without order: it has to recover when it begins again. */
    public void crash() throws Exception {
        asServer("pg_ctl", "-D", folder + "/data", "-m", "immediate", "-w", "stop");
    }

    private String password() throws IOException {
        return Files.writeString(folder.resolve("password"), "admin").toString();
    }

    /** An empty one, which {@code owner} owns. */
    public String newDatabase() throws SQLException {
        String name = "garden" + ++databases;
        sql("postgres", "create database " + name + " owner owner");
        return name;
    }

    /** As JDBC takes it. */
    public String url(String database) {
        return "jdbc:postgresql://127.0.0.1:" + port + "/" + database;
    }

    private void sql(String database, String... statements) throws SQLException {
        try (Connection connection = DriverManager.getConnection(url(database), "postgres", "admin");
                Statement statement = connection.createStatement()) {
            for (String one : statements) statement.execute(one);
        }
    }

    private static boolean isRoot() {
        return "root".equals(System.getProperty("user.name"));
    }

    private static Path programs() throws IOException {
        try (Stream<Path> versions = Files.list(Path.of("/usr/lib/postgresql"))) {
            return versions.map(version -> version.resolve("bin"))
                    .filter(bin -> Files.isExecutable(bin.resolve("initdb")))
                    .max(Comparator.naturalOrder())
                    .orElseThrow(() -> new AssertionError("No PostgreSQL server is installed. bin/database does it"));
        }
    }

    /** It refuses to run as root. */
    private void asServer(String program, String... arguments) throws Exception {
        List<String> command = new ArrayList<>();
        if (isRoot()) command.addAll(List.of("runuser", "-u", "postgres", "--"));
        command.add(programs.resolve(program).toString());
        command.addAll(List.of(arguments));
        run(command);
    }

    private static void run(List<String> command) throws Exception {
        Path output = Files.createTempFile("postgres", ".log");
        Process process = new ProcessBuilder(command)
                .directory(Path.of("/").toFile())
                .redirectErrorStream(true)
                .redirectOutput(output.toFile())
                .start();
        if (!process.waitFor(120, TimeUnit.SECONDS) || process.exitValue() != 0)
            throw new AssertionError(command + ": " + Files.readString(output, StandardCharsets.UTF_8));
        Files.delete(output);
    }

    @Override
    public void close() throws Exception {
        crash();
        run(List.of("rm", "-rf", folder.toString()));
    }
}
