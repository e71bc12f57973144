package dev.verbale.acceptance;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.sun.net.httpserver.HttpServer;
import dev.verbale.Scope;
import dev.verbale.Verbale;
import dev.verbale.assertj.VerbaleAssertJ;
import dev.verbale.awaitility.VerbaleAwaitility;
import dev.verbale.contract.JsonSchemaContract;
import dev.verbale.http.VerbaleHttp;
import dev.verbale.httpclient5.VerbaleHttpClient5;
import dev.verbale.okhttp.VerbaleOkHttp;
import dev.verbale.playwright.VerbalePlaywright;
import dev.verbale.restassured.VerbaleFilter;
import dev.verbale.selenium.VerbaleSelenium;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.spring.VerbaleSpring;
import dev.verbale.steps.StepMethod;
import dev.verbale.steps.StepMethods;
import dev.verbale.video.ScreenRecorder;
import io.restassured.RestAssured;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.lang.reflect.Proxy;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import okhttp3.OkHttpClient;
import okhttp3.Request;
import okhttp3.Response;
import org.apache.hc.client5.http.classic.methods.HttpGet;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.logging.log4j.core.LoggerContext;
import org.assertj.core.api.SoftAssertions;
import org.awaitility.Awaitility;
import org.junit.jupiter.api.Test;
import org.junit.platform.engine.discovery.DiscoverySelectors;
import org.junit.platform.launcher.core.LauncherDiscoveryRequestBuilder;
import org.junit.platform.launcher.core.LauncherFactory;
import org.openqa.selenium.By;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebElement;
import org.slf4j.LoggerFactory;
import org.springframework.http.client.JdkClientHttpRequestFactory;
import org.springframework.web.client.RestClient;

/** Uses one adapter, as a suite does; started from the module path. */
final class Driven {

    private Driven() {}

    public static void main(String[] arguments) throws Exception {
        if (arguments[0].equals("junit")) {
            LauncherFactory.create()
                    .execute(LauncherDiscoveryRequestBuilder.request()
                            .selectors(DiscoverySelectors.selectClass(Sample.class))
                            .build());
            return;
        }
        AdapterRecorder recorder = AdapterRecorder.current();
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("k", arguments[0]).build());
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            byte[] response = "{\"gate\":\"open\",\"token\":\"hunter2\"}".getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().add("Content-Type", "application/json");
            exchange.sendResponseHeaders(200, response.length);
            exchange.getResponseBody().write(response);
            exchange.close();
        });
        server.start();
        try {
            drive(arguments[0], "http://localhost:" + server.getAddress().getPort() + "/gate");
        } finally {
            server.stop(0);
            recorder.endTest(test, TestEnd.passed());
        }
    }

    private static void drive(String adapter, String url) throws Exception {
        switch (adapter) {
            case "assertj" ->
                VerbaleAssertJ.watch(new SoftAssertions()).assertThat("Ada").isEqualTo("Dario");
            case "awaitility" -> {
                VerbaleAwaitility.watch();
                Awaitility.await("password=hunter2").until(() -> true);
            }
            case "steps" -> StepMethods.of(new Gate()).open("hunter2");
            case "logback" -> {
                var context = (ch.qos.logback.classic.LoggerContext) LoggerFactory.getILoggerFactory();
                dev.verbale.logback.VerbaleAppender.install(context);
                context.getLogger("gate").error("password={}", "hunter2");
            }
            case "log4j" -> {
                var context = (LoggerContext) org.apache.logging.log4j.LogManager.getContext(false);
                dev.verbale.log4j.VerbaleAppender.install(context);
                context.getLogger("gate").error("password={}", "hunter2");
            }
            case "http" ->
                VerbaleHttp.watch(HttpClient.newHttpClient())
                        .send(HttpRequest.newBuilder(URI.create(url)).build(), HttpResponse.BodyHandlers.ofString());
            case "restassured" ->
                RestAssured.given().filter(new VerbaleFilter()).get(url).then().statusCode(200);
            case "okhttp" -> {
                try (Response response = VerbaleOkHttp.watch(new OkHttpClient())
                        .newCall(new Request.Builder().url(url).build())
                        .execute()) {
                    response.body().string();
                }
            }
            case "httpclient5" -> {
                try (var client = VerbaleHttpClient5.watch(HttpClients.custom()).build()) {
                    client.execute(
                            new HttpGet(url),
                            response -> response.getEntity().getContent().readAllBytes());
                }
            }
            case "spring" ->
                RestClient.builder()
                        .requestFactory(VerbaleSpring.watch(new JdkClientHttpRequestFactory()))
                        .build()
                        .get()
                        .uri(url)
                        .retrieve()
                        .body(String.class);
            case "contract" -> {
                Path schema = Files.writeString(
                        Files.createTempFile("gate", ".schema.json"), "{\"type\":\"object\",\"required\":[\"gate\"]}");
                JsonSchemaContract.of(schema).holds("gate", "{\"gate\":1}");
                Files.delete(schema);
            }
            case "video" -> {
                var screenRecorder = new ScreenRecorder(AdapterRecorder.current());
                screenRecorder.use(AdapterRecorder.current().currentTest());
                screenRecorder.frame(image());
                screenRecorder.ended(AdapterRecorder.current().currentTest());
            }
            case "selenium" -> {
                WebElement field = fake(WebElement.class, null);
                VerbaleSelenium.watch(fake(WebDriver.class, field))
                        .findElement(By.id("gate-token"))
                        .sendKeys("hunter2");
            }
            case "playwright" -> {
                Locator field = fake(Locator.class, null);
                VerbalePlaywright.watch(fake(Page.class, field))
                        .getByLabel("Gate token")
                        .fill("hunter2");
            }
            default -> throw new IllegalArgumentException(adapter);
        }
    }

    private static byte[] image() throws Exception {
        var png = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(16, 16, BufferedImage.TYPE_INT_RGB), "png", png);
        return png.toByteArray();
    }

    /** It gives {@code found} where it is to give one, and nothing else. */
    private static <T> T fake(Class<T> type, Object found) {
        return type.cast(Proxy.newProxyInstance(
                Driven.class.getClassLoader(), new Class<?>[] {type}, (self, method, given) -> {
                    if (found != null && method.getReturnType().isInstance(found)) return found;
                    if (method.getReturnType() == boolean.class) return false;
                    if (method.getReturnType() == int.class) return 0;
                    if (method.getReturnType() == String.class) return "password";
                    // Whatever else a browser has, it has one too: a session, an address.
                    return method.getReturnType().isInterface() ? fake(method.getReturnType(), null) : null;
                }));
    }

    /** A page object. */
    public static class Gate {
        @StepMethod("Open with {0}")
        public void open(String token) {}
    }

    /** A suite. */
    public static class Sample {
        @Test
        void opens() {
            Verbale.log("token: {}", "hunter2");
        }
    }
}
