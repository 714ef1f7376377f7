package rivo.core.rule;

import java.util.List;

/**
 * One clause of a rule, as it turned out for a subject.
 *
 * @param words the clause as it would be written, without the {@code not} around it
 * @param holds whether the subject satisfies it
 * @param seen the values that were looked at; empty when nothing has been reported
 */
public record Clause(String words, boolean holds, List<String> seen) {

    public Clause {
        seen = List.copyOf(seen);
    }
}
