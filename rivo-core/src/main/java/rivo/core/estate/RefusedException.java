package rivo.core.estate;

import java.util.List;
import java.util.stream.Collectors;

/** Input that was refused, with every problem found in it and not only the first. Nothing has been changed. */
public final class RefusedException extends RuntimeException {

    private final transient List<Problem> problems;

    /**
     * @param problems at least one
     * @throws IllegalArgumentException when there is no problem
     */
    public RefusedException(List<Problem> problems) {
        super(problems.stream().map(Problem::sentence).collect(Collectors.joining(" ")));
        if (problems.isEmpty()) {
            throw new IllegalArgumentException("a refusal names at least one problem");
        }
        this.problems = List.copyOf(problems);
    }

    public RefusedException(String code, String place, String sentence) {
        this(List.of(new Problem(code, place, sentence)));
    }

    public List<Problem> problems() {
        return problems;
    }
}
