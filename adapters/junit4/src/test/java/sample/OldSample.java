package sample;

import static org.junit.Assert.assertEquals;
import static org.junit.Assume.assumeTrue;

import dev.verbale.About;
import dev.verbale.ExpectedFailure;
import dev.verbale.Verbale;
import dev.verbale.junit4.VerbaleRule;
import java.util.concurrent.CountDownLatch;
import org.junit.After;
import org.junit.BeforeClass;
import org.junit.ClassRule;
import org.junit.Ignore;
import org.junit.Rule;
import org.junit.Test;
import org.junit.experimental.categories.Category;
import org.junit.experimental.theories.DataPoint;
import org.junit.experimental.theories.Theories;
import org.junit.experimental.theories.Theory;
import org.junit.rules.ErrorCollector;
import org.junit.rules.ExternalResource;
import org.junit.rules.RuleChain;
import org.junit.runner.RunWith;
import org.junit.runners.Parameterized;

/** One test of each kind. */
@Category(OldSample.Garden.class)
public class OldSample {

    public interface Garden {}

    @Test
    @About(owner = "Ada")
    public void passes() {
        Verbale.step("Look", () -> Verbale.log("three leaves"));
    }

    @Test
    public void fails() {
        assertEquals("Ada", "Dario");
    }

    @Test
    public void breaks() {
        throw new IllegalStateException("no water");
    }

    @Test
    public void givesUp() {
        assumeTrue("needs rain", false);
    }

    @Test
    @Ignore("next season")
    public void waits() {}

    @Test(expected = IllegalStateException.class)
    public void throwsAsExpected() {
        throw new IllegalStateException("as expected");
    }

    @Test(timeout = 200)
    public void hangs() throws InterruptedException {
        Verbale.log("waits for rain");
        new CountDownLatch(1).await();
    }

    @RunWith(Parameterized.class)
    public static class Rows {
        @Parameterized.Parameters(name = "{0}")
        public static Object[] crops() {
            return new Object[] {"Basil", "Kale"};
        }

        @Parameterized.Parameter
        public String crop;

        @Test
        public void grows() {
            if (crop.equals("Kale")) throw new AssertionError("eaten by snails");
        }
    }

    @RunWith(Theories.class)
    public static class Theory1 {
        @DataPoint
        public static final String CROP = "Basil";

        @Theory
        public void grows(String crop) {}
    }

    @Ignore("closed in winter")
    public static class Closed {
        @Test
        public void digs() {}

        @Test
        public void rakes() {}
    }

    /** More than one thing fails. */
    public static class Several {
        @Rule
        public final ErrorCollector collector = new ErrorCollector();

        @Test
        public void collects() {
            collector.addError(new AssertionError("the bed is dry"));
            collector.addError(new IllegalStateException("the shed is locked"));
        }
    }

    public static class Untidy {
        @Test
        public void failsAndCannotTidyUp() {
            throw new AssertionError("the bed is dry");
        }

        @After
        public void tidiesUp() {
            throw new IllegalStateException("no brush");
        }
    }

    public static class Broken {
        @BeforeClass
        public static void fetchesTools() {
            throw new IllegalStateException("no tools");
        }

        @Test
        public void digs() {}
    }

    public static class GivenUp {
        @ClassRule
        public static final ExternalResource SEASON = new ExternalResource() {
            @Override
            protected void before() {
                assumeTrue("not the season", false);
            }
        };

        @Test
        public void sows() {}
    }

    /** With the rule, whose evidence is captured before the browser is closed. */
    public static class Ruled {
        private boolean open;

        private final ExternalResource browser = new ExternalResource() {
            @Override
            protected void before() {
                open = true;
                Verbale.register(new dev.verbale.EvidenceSource() {
                    @Override
                    public String name() {
                        return "browser";
                    }

                    @Override
                    public void capture(dev.verbale.Evidence evidence) {
                        evidence.log(open ? "sees the page" : "sees nothing");
                    }
                });
            }

            @Override
            protected void after() {
                open = false;
            }
        };

        @Rule
        public final RuleChain rules =
                RuleChain.outerRule(new VerbaleRule()).around(browser).around(new VerbaleRule());

        @Test
        public void loses() {
            throw new AssertionError("nothing grows");
        }

        @Test
        @ExpectedFailure("the pump is broken")
        public void isKnownToFail() {
            throw new IllegalStateException("no pump");
        }

        @Test
        public void gathersChecks() {
            Verbale.check("The gate is shut", () -> {
                throw new AssertionError("it is open");
            });
            Verbale.log("goes on");
        }
    }
}
