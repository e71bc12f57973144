package dev.verbale.hub;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.results.CheckedNode;
import com.deque.html.axecore.selenium.AxeBuilder;
import dev.verbale.folder.RunFolder;
import dev.verbale.spi.AdapterRecorder;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.logging.Level;
import no.nav.security.mock.oauth2.MockOAuth2Server;
import no.nav.security.mock.oauth2.OAuth2Config;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Cookie;
import org.openqa.selenium.Keys;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.logging.LogEntry;
import org.openqa.selenium.logging.LogType;
import org.openqa.selenium.logging.LoggingPreferences;
import org.openqa.selenium.support.ui.WebDriverWait;

/** Somebody comes with a token, looks at a run, and says whose a failure is: in a real browser, with the keyboard, by any width. */
class HubPagesTest {

    @TempDir
    Path root;

    private HubFixture hub;
    private ChromeDriver browser;

    @BeforeEach
    void open() throws Exception {
        hub = new HubFixture(root.resolve("server"), null);
        var options = new ChromeOptions();
        options.setBinary(System.getProperty("tests.browser", "/usr/bin/chromium"));
        options.addArguments("--headless=new", "--no-sandbox", "--disable-gpu", "--window-size=1280,943");
        var logs = new LoggingPreferences();
        logs.enable(LogType.BROWSER, Level.ALL);
        options.setCapability("goog:loggingPrefs", logs);
        browser = new ChromeDriver(
                new ChromeDriverService.Builder()
                        .usingDriverExecutable(Path.of("/usr/bin/chromedriver").toFile())
                        .usingAnyFreePort()
                        .build(),
                options);
    }

    @AfterEach
    void close() {
        browser.quit();
        hub.close();
    }

    private void waitFor(String script) {
        new WebDriverWait(browser, Duration.ofSeconds(30), Duration.ofMillis(20))
                .withMessage(script)
                .until(any -> Boolean.TRUE.equals(browser.executeScript("return " + script)));
    }

    private void follow(String link) {
        waitFor("[...document.links].some(one => one.innerText === '" + link + "')");
        browser.findElement(By.linkText(link)).sendKeys(Keys.ENTER);
    }

    /** What anybody may find fault with. A look at the page where it is opens no window for each. */
    @SuppressWarnings("deprecation")
    private void lookAtIt() {
        assertThat(new AxeBuilder()
                        .setLegacyMode(true).analyze(browser).getViolations().stream()
                                .map(rule -> rule.getId() + ": "
                                        + rule.getNodes().stream()
                                                .map(CheckedNode::getHtml)
                                                .toList())
                                .toList())
                .as(browser.getCurrentUrl())
                .isEmpty();
        browser.executeCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", 390, "height", 844, "deviceScaleFactor", 1, "mobile", false));
        assertThat(browser.executeScript(
                        "return document.documentElement.scrollWidth - document.documentElement.clientWidth"))
                .as(browser.getCurrentUrl() + " at 390 pixels")
                .isEqualTo(0L);
        browser.executeCdpCommand("Emulation.clearDeviceMetricsOverride", Map.of());
    }

    @Test
    void a_person_enters_with_their_own_account_where_they_wanted_to_go_and_leaves() throws Exception {
        var provider = new MockOAuth2Server(OAuth2Config.Companion.fromJson("{\"interactiveLogin\":true}"));
        provider.start();
        hub.close();
        URI issuer = provider.issuerUrl("garden").uri();
        hub = new HubFixture(
                root.resolve("known"),
                null,
                options -> options.withOpenId(new HubOptions.OpenId(issuer, "verbale-hub", "a-secret", "sub")));
        hub.token("orto", Role.SEND, "begins the project");
        hub.api(HubFixture.ADMINISTER, "POST", "api/v1/people?name=ada@orto.example&role=read&project=orto", "");
        browser.get(hub.address().resolve("projects/orto/").toString());
        lookAtIt();
        follow("Enter with your account");
        waitFor("document.querySelector('[name=username]') !== null");
        browser.findElement(By.name("username")).sendKeys("ada@orto.example", Keys.ENTER);

        waitFor("document.title === 'Verbale: runs'");
        assertThat(browser.getCurrentUrl()).isEqualTo(hub.address() + "projects/orto/");
        browser.get(hub.address().toString());
        assertThat(browser.findElement(By.tagName("main")).getText()).contains("orto", "ada@orto.example");
        lookAtIt();
        browser.findElement(By.tagName("button")).sendKeys(Keys.ENTER);
        waitFor("document.title.startsWith('Enter')");
        assertThat(browser.manage().getCookies()).extracting(Cookie::getName).doesNotContain("verbale-hub");
        provider.shutdown();
    }

    @Test
    void a_person_enters_and_says_whose_a_failure_is() throws Exception {
        AdapterRecorder recorder = HubFixture.recorder(root.resolve("night"));
        HubFixture.test(recorder, "bad", false);
        HubFixture.test(recorder, "digs", true);
        HubFixture.end(recorder);
        hub.sender(new RunFolder(recorder.folder()), hub.token("orto", Role.SEND, "CI"), "orto", "W".repeat(60))
                .send();
        browser.get(hub.address().toString());
        lookAtIt();
        browser.switchTo().activeElement();
        browser.findElement(By.name("token")).sendKeys(hub.token("orto", Role.LABEL, "Ada Rossi"), Keys.ENTER);

        waitFor("document.title.startsWith('Projects')");
        new WebDriverWait(browser, Duration.ofSeconds(30)).until(any -> {
            if (browser.findElement(By.tagName("body")).getText().contains("1 needs attention")) return true;
            browser.navigate().refresh(); // the run was not read yet
            return false;
        });
        lookAtIt();
        follow("orto");
        waitFor("document.querySelector('[data-run] a') !== null");
        browser.findElement(By.cssSelector("[data-run] a")).sendKeys(Keys.ENTER);
        follow("What is known of it");
        waitFor("document.querySelector('form') !== null");
        lookAtIt();
        browser.findElement(By.name("label")).sendKeys("seeds team");
        browser.findElement(By.name("owner")).sendKeys("Bruno <b>Verdi</b>");
        browser.findElement(By.name("comment")).sendKeys("<img src=x onerror=alert(1)>", Keys.ENTER);
        waitFor("document.querySelector('.known') !== null");
        assertThat(browser.findElement(By.cssSelector(".known")).getText())
                .isEqualTo("seeds team, owner Bruno <b>Verdi</b>, <img src=x onerror=alert(1)>");
        assertThat(browser.findElements(By.cssSelector("main img, main td b:not(.failed)")))
                .isEmpty();
        lookAtIt();
        follow("All runs");
        waitFor("document.querySelector('[data-run] a') !== null");
        browser.findElement(By.cssSelector("[data-run] a")).sendKeys(Keys.ENTER);
        waitFor("document.querySelector('.reasons .label')?.innerText.toLowerCase() === 'seeds team'");
        follow("bad");
        follow("All its runs");
        waitFor("document.body.innerText.includes('sample.RotaTest.bad()')");
        lookAtIt();

        List<LogEntry> complaints = browser.manage().logs().get(LogType.BROWSER).getAll();
        assertThat(complaints)
                .extracting(LogEntry::getMessage)
                .as("but that a token is asked for")
                .allMatch(message -> message.contains("401") || message.contains("favicon"));
    }
}
