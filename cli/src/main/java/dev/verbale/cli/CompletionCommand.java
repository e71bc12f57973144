package dev.verbale.cli;

import java.util.concurrent.Callable;
import picocli.AutoComplete;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** What a shell completes words by. */
@Command(
        name = "completion",
        description = "Prints what a shell completes commands and options by.",
        mixinStandardHelpOptions = true,
        hidden = true,
        footer = {
            "  source <(verbale completion bash)   # in ~/.bashrc",
            "  source <(verbale completion zsh)   # in ~/.zshrc",
        })
final class CompletionCommand implements Callable<Integer> {

    /** For which. */
    enum Shell {
        BASH,
        ZSH
    }

    @Parameters(paramLabel = "SHELL", description = "bash or zsh")
    private Shell shell = Shell.BASH;

    @Spec
    private CommandSpec spec;

    /** One script for both: in zsh it asks for the completion of bash, which has to be there before it is read. */
    @Override
    public Integer call() {
        var out = spec.commandLine().getOut();
        if (shell == Shell.ZSH) out.println("autoload -U +X compinit && compinit");
        out.print(AutoComplete.bash("verbale", spec.commandLine().getParent()));
        return ExitCodes.DONE;
    }
}
