package sample;

import dev.verbale.Verbale;
import net.jqwik.api.Example;
import net.jqwik.api.ForAll;
import net.jqwik.api.Group;
import net.jqwik.api.Label;
import net.jqwik.api.Property;

/** Properties of jqwik. */
public class JqwikSample {

    @Property(tries = 5)
    boolean sumsAreTheSameBothWays(@ForAll int beds, @ForAll int plots) {
        return beds + plots == plots + beds;
    }

    @Example
    @Label("a bean grows")
    void grows() {
        Verbale.log("three leaves");
    }

    @Group
    class Winter {
        @Example
        void nothingGrows() {
            throw new AssertionError("snow");
        }
    }
}
