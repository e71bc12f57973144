package dev.verbale.hub;

import dev.verbale.viewer.EventFeed;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;

/** All that look at something live: a few threads write to them, however many they are. */
final class HubStreams implements AutoCloseable {

    static final int MAX = 10_000;

    private static final String OPENED = HubStreams.class.getName();
    private static final int THREADS = 4;

    private final ScheduledExecutorService threads = Executors.newScheduledThreadPool(THREADS, task -> {
        Thread thread = new Thread(task, "hub-streams");
        thread.setDaemon(true);
        return thread;
    });
    private final Map<String, Project> byProject = new ConcurrentHashMap<>();
    private final AtomicInteger open = new AtomicInteger();

    HubStreams() {
        threads.scheduleWithFixedDelay(
                this::signOfLife, EventFeed.SIGN_OF_LIFE_MILLIS, EventFeed.SIGN_OF_LIFE_MILLIS, TimeUnit.MILLISECONDS);
    }

    /** Those of a project, which are written to one after the other. */
    private final class Project {

        private final Map<HubStream, Boolean> streams = new ConcurrentHashMap<>();
        private final AtomicBoolean isDue = new AtomicBoolean();

        /** What changes while it is written is written next. */
        void write(boolean withSignOfLife) {
            if (!withSignOfLife && !isDue.compareAndSet(false, true)) return;
            if (threads.isShutdown()) return;
            threads.execute(() -> {
                if (!withSignOfLife) isDue.set(false);
                streams.forEach((stream, there) -> {
                    if (!stream.write(withSignOfLife) && streams.remove(stream) != null) open.decrementAndGet();
                });
            });
        }
    }

    private Project of(String project) {
        return byProject.computeIfAbsent(project, name -> new Project());
    }

    /** Something may be new in a project. */
    void changed(String project) {
        of(project).write(false);
    }

    /**
     * Keeps an answer open for what a feed has, once its request is over.
     *
     * @return false where too many are open
     */
    boolean open(Request request, Response response, String project, EventFeed feed) {
        if (open.get() >= MAX) return false;
        request.setAttribute(OPENED, new Opened(project, new HubStream(response, feed)));
        return true;
    }

    /** A stream whose request is not over. */
    private record Opened(String project, HubStream stream) {}

    /** Whether this request opened one, which goes on with {@code callback} then. */
    boolean goesOn(Request request, Callback callback) {
        Object opened = request.getAttribute(OPENED);
        if (!(opened instanceof Opened one)) return false;
        Project project = of(one.project());
        open.incrementAndGet();
        one.stream().begin(callback, () -> changed(one.project()));
        project.streams.put(one.stream(), true);
        project.write(false);
        return true;
    }

    /** How many look. */
    int count() {
        return open.get();
    }

    private void signOfLife() {
        byProject.values().forEach(project -> project.write(true));
    }

    @Override
    public void close() {
        for (Project project : byProject.values()) project.streams.keySet().forEach(HubStream::end);
        threads.shutdown();
    }
}
