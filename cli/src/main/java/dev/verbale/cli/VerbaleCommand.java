package dev.verbale.cli;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

/** The command without a subcommand. */
@Command(
        name = "verbale",
        description = "Reads recorded test runs.",
        mixinStandardHelpOptions = true,
        versionProvider = Version.class)
final class VerbaleCommand implements Callable<Integer> {

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        WhatIsHere.print(spec.commandLine().getOut());
        return ExitCodes.DONE;
    }
}
