package dev.verbale.sending;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * A project on a hub, for programs that ask about it or change something there: what is known of its failures, what is remembered of its
 * runs, and who may do what. Safe from any thread.
 *
 * <p>Each method waits for the hub as long as there is patience, and throws {@link HubRefused} where the token may not; an interrupt is one
 * more way not to reach it, and stays set.
 *
 * @since 0.2.0
 */
public final class HubProject {

    private static final Map<String, String> FORM = Map.of("Content-Type", "application/x-www-form-urlencoded");
    private static final String API = "api";
    private static final String VERSION = "v1";

    private final SendOptions options;
    private final HubConnection hub;

    /** @param options whose name of a run is not used; the token has the role that is needed */
    public HubProject(SendOptions options) {
        this.options = options;
        this.hub = new HubConnection(options);
    }

    /** What people know of the reasons of its failures, as a file of rules in YAML. Any role may ask. */
    public String rules() throws IOException {
        return new String(bytes(address("rules")), StandardCharsets.UTF_8);
    }

    /**
     * Says what is known of a reason. The role is {@code label}.
     *
     * @param reason its id
     * @param known {@code label}; and {@code owner}, {@code link}, {@code comment}, {@code known-until} where there is such. Nothing takes
     *     away what was known
     */
    public void know(String reason, Map<String, String> known) throws IOException {
        ask(
                known.isEmpty() ? "DELETE" : "PUT",
                address("reasons", reason),
                FORM,
                BodyPublishers.ofString(form(known)),
                Set.of(204));
    }

    /**
     * Brings what is remembered of its runs into {@code folder}: what is there as the hub has it is not brought again, and what the hub does
     * not remember any more goes. Any role may ask.
     *
     * @param folder for nothing else, in the format of a history folder
     * @return how many files came
     */
    public int history(Path folder) throws IOException {
        Files.createDirectories(folder);
        Set<String> there = new HashSet<>();
        int came = 0;
        for (String line : new String(bytes(address("history")), StandardCharsets.UTF_8)
                .lines()
                .toList()) {
            if (!line.matches("[0-9a-f]{64} {2}[\\w.-]+" + DIGEST))
                throw new IOException("The hub at " + options.hub() + " answered with what is no list: " + line);
            String name = line.substring(66);
            there.add(name);
            Path file = folder.resolve(name);
            if (Files.exists(file) && Sha256.of(file).equals(line.substring(0, 64))) continue;
            Path fresh = Files.createTempFile(folder, "fresh-", "");
            try {
                Files.write(fresh, bytes(address("history", name)));
                Files.move(fresh, file, StandardCopyOption.REPLACE_EXISTING);
            } finally {
                Files.deleteIfExists(fresh);
            }
            came++;
        }
        forget(folder, there);
        return came;
    }

    private static final String DIGEST = "\\.digest\\.jsonl\\.gz";

    private static void forget(Path folder, Set<String> there) throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            for (Path file : all.toList()) {
                String name = file.getFileName().toString();
                if (name.matches(".*" + DIGEST) && !there.contains(name)) Files.deleteIfExists(file);
            }
        }
    }

    /** How long its runs are kept, and which go within a week, in lines. Any role may ask. */
    public String keeping() throws IOException {
        return new String(bytes(address("keeping")), StandardCharsets.UTF_8);
    }

    /**
     * Says how long its runs are kept. The role is {@code administer}.
     *
     * @param rule {@code days}, {@code failing-days}, {@code max-bytes}, as far as they are meant; nothing keeps all
     * @return as {@link #keeping}
     */
    public String keep(Map<String, String> rule) throws IOException {
        return ask("PUT", address("keeping"), FORM, BodyPublishers.ofString(form(rule)), Set.of(200))
                .body();
    }

    /**
     * Says that a run stays whatever the rule says, or takes that back. The role is {@code label}.
     *
     * @param run its name there
     */
    public void stays(String run, boolean stays) throws IOException {
        ask(stays ? "PUT" : "DELETE", address("runs", run, "stays"), Map.of(), BodyPublishers.noBody(), Set.of(204));
    }

    /**
     * Makes a token. The role is {@code administer}.
     *
     * @param role of the new one, such as {@code send}
     * @param label whose it is
     * @return the token, which nothing shows again
     */
    public String token(String role, String label) throws IOException {
        return tokens(
                "POST",
                "?project=" + encoded(options.project()) + "&role=" + encoded(role) + "&label=" + encoded(label),
                201);
    }

    /**
     * Ends all tokens with a label, of any project. The role is {@code administer}.
     *
     * @return how many, in words
     */
    public String endTokens(String label) throws IOException {
        return tokens("DELETE", "?label=" + encoded(label), 200);
    }

    /**
     * Lets a person do something whom the hub's proxy names. The role is {@code administer}.
     *
     * @param name as the proxy says it; {@code *} for everybody whom it lets in
     * @param role of theirs in this project, or {@code administer} for everything
     */
    public void person(String name, String role) throws IOException {
        people("POST", "?name=" + encoded(name) + "&project=" + encoded(options.project()) + "&role=" + encoded(role));
    }

    /** Lets a person do nothing any more, in any project. The role is {@code administer}. */
    public void endPerson(String name) throws IOException {
        people("DELETE", "?name=" + encoded(name));
    }

    private void people(String method, String query) throws IOException {
        URI address = URI.create(hub.address(API, VERSION, "people") + query);
        ask(method, address, Map.of(), BodyPublishers.noBody(), Set.of(204));
    }

    private String tokens(String method, String query, int expected) throws IOException {
        URI address = URI.create(hub.address(API, VERSION, "tokens") + query);
        return ask(method, address, Map.of(), BodyPublishers.noBody(), Set.of(expected))
                .body()
                .strip();
    }

    private static String form(Map<String, String> fields) {
        return fields.entrySet().stream()
                .map(one -> encoded(one.getKey()) + "=" + encoded(one.getValue()))
                .collect(Collectors.joining("&"));
    }

    private byte[] bytes(URI address) throws IOException {
        try {
            return hub.bytes(address);
        } catch (InterruptedException hurried) {
            throw interrupted();
        }
    }

    private HttpResponse<String> ask(
            String method, URI address, Map<String, String> headers, BodyPublisher body, Set<Integer> expected)
            throws IOException {
        try {
            return hub.ask(method, address, headers, body, expected);
        } catch (InterruptedException hurried) {
            throw interrupted();
        }
    }

    private IOException interrupted() {
        Thread.currentThread().interrupt();
        return new InterruptedIOException("The hub at " + options.hub() + " was not waited for");
    }

    private URI address(String... parts) {
        return hub.address(Stream.concat(Stream.of(API, VERSION, "projects", options.project()), Stream.of(parts))
                .toArray(String[]::new));
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }
}
