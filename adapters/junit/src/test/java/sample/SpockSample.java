package sample;

import groovy.lang.GroovyClassLoader;

/** A specification of Spock, compiled where it is run: it is Groovy. */
public final class SpockSample {

    private SpockSample() {}

    /** The class of the specification. */
    public static Class<?> compile() {
        return new GroovyClassLoader(SpockSample.class.getClassLoader()).parseClass("""
                package sample
                class GardenSpec extends spock.lang.Specification {
                    def setup() { dev.verbale.Verbale.log('opens the gate') }
                    def 'a bean grows'() { expect: 1 + 1 == 2 }
                    def 'a bed has #crop'() {
                        expect: crop.size() == letters
                        where:
                        crop    | letters
                        'Kale'  | 4
                        'Basil' | 4
                    }
                }
                """);
    }
}
