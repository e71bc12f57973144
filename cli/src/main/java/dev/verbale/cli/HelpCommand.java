package dev.verbale.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** What a command does. */
@Command(name = "help", description = "Shows which commands there are, or what one of them does.", helpCommand = true)
final class HelpCommand implements Callable<Integer> {

    @Parameters(arity = "0..*", paramLabel = "COMMAND", description = "Such as page, or history add")
    private List<String> words = new ArrayList<>();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        CommandLine at = spec.commandLine().getParent();
        for (String word : words) {
            CommandLine below = at.getSubcommands().get(word);
            if (below == null) throw new ParameterException(at, WrongWords.noCommand(at, word));
            at = below;
        }
        at.usage(spec.commandLine().getOut());
        return ExitCodes.DONE;
    }
}
