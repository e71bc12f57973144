package dev.verbale.selenium;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeOptions;

/** A small site, and the browser that tests use it with. */
public final class Garden implements AutoCloseable {

    private final Map<String, String> pages = new ConcurrentHashMap<>();
    private final BlockingQueue<String> asked = new LinkedBlockingQueue<>();
    private final HttpServer server;

    Garden() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(Executors.newCachedThreadPool(work -> {
            var thread = new Thread(work);
            thread.setDaemon(true);
            return thread;
        }));
        server.createContext("/", exchange -> {
            asked.add(exchange.getRequestURI().getPath());
            String page = pages.get(exchange.getRequestURI().getPath());
            byte[] body = (page == null ? "nothing grows here" : page).getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().add("Content-Type", "text/html; charset=utf-8");
            exchange.sendResponseHeaders(page == null ? 404 : 200, body.length);
            exchange.getResponseBody().write(body);
            exchange.close();
        });
        server.start();
    }

    /** The address of a page that holds {@code html}. */
    String page(String path, String html) {
        pages.put(path, html);
        return "http://127.0.0.1:" + server.getAddress().getPort() + path;
    }

    /** Waits until somebody asks for {@code path}. */
    void awaitRequest(String path) throws InterruptedException {
        while (true) {
            String one = asked.poll(30, TimeUnit.SECONDS);
            if (one == null) throw new AssertionError("nobody asks for " + path);
            if (one.equals(path)) return;
        }
    }

    static ChromeDriver browser() {
        System.setProperty("webdriver.chrome.driver", "/usr/bin/chromedriver");
        return new ChromeDriver(options());
    }

    /** Of a browser that draws for nobody. */
    public static ChromeOptions options() {
        var options = new ChromeOptions();
        options.setBinary(System.getProperty("tests.browser", "/usr/bin/chromium"));
        options.addArguments(
                "--headless=new",
                "--no-sandbox",
                "--disable-gpu",
                "--disable-background-networking",
                // Windows of the address bar that nobody sees cost more than the page.
                "--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup",
                "--window-size=1280,943");
        return options;
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
