package dev.verbale.http;

import java.lang.reflect.Method;
import java.net.http.HttpClient;
import java.time.Duration;

/** What a client of Java 21 and newer does when it is shut down, bare and watched. Run by a JVM of such a version. */
public final class LifeCycle {

    private LifeCycle() {}

    /** Prints the same for both, or says where they differ. */
    public static void main(String[] arguments) throws Exception {
        String bare = behaviour(HttpClient.newHttpClient());
        String watched = behaviour(VerbaleHttp.watch(HttpClient.newHttpClient()));
        System.out.println(bare.equals(watched) ? "same: " + bare : "bare " + bare + " and watched " + watched);
    }

    private static String behaviour(HttpClient client) throws Exception {
        Method isTerminated = HttpClient.class.getMethod("isTerminated");
        Method await = HttpClient.class.getMethod("awaitTermination", Duration.class);
        Object before = isTerminated.invoke(client);
        HttpClient.class.getMethod("shutdown").invoke(client);
        Object awaited = await.invoke(client, Duration.ofSeconds(10));
        Object after = isTerminated.invoke(client);
        HttpClient.class.getMethod("shutdownNow").invoke(client);
        ((AutoCloseable) client).close();
        return before + " " + awaited + " " + after;
    }
}
