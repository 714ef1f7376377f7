package rivo.server.audience;

import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.audience.Audiences;
import rivo.core.estate.DeviceCollection;
import rivo.core.rule.Folding;
import rivo.core.rule.Rule;
import rivo.core.rule.RuleException;
import rivo.server.estate.CurrentSnapshot;

/** Tries rules out while they are written. Nothing is kept of it. */
@RestController
class RulesApi {

    /** A rule as it is written, finished or not. */
    record WrittenRule(String rule) {
    }

    /**
     * What a rule comes to.
     *
     * @param devices how many satisfy it; absent where something is wrong with it
     * @param fleet how many devices there are
     * @param line where that is, from 1 on, and {@code column} likewise; absent where nothing is wrong, or no single place
     */
    record TriedRule(@Nullable Integer devices, int fleet, @Nullable String problem, @Nullable Integer line, @Nullable Integer column) {
    }

    private final CurrentSnapshot current;

    RulesApi(CurrentSnapshot current) {
        this.current = current;
    }

    @PostMapping("/api/rules/trial")
    TriedRule attempt(@RequestBody WrittenRule written) {
        Audiences audiences = current.now().resolver().audiences();
        int fleet = audiences.estate().devices().size();
        try {
            Rule rule = Rule.parse(written.rule());
            for (String name : rule.collections()) {
                if (audiences.estate().collections().values().stream().map(DeviceCollection::name)
                        .noneMatch(known -> Folding.fold(known).equals(Folding.fold(name)))) {
                    return new TriedRule(null, fleet, "There is no collection named " + name + ".", null, null);
                }
            }
            return new TriedRule(audiences.trying().satisfying(rule).size(), fleet, null, null, null);
        } catch (RuleException e) {
            return new TriedRule(null, fleet, e.getMessage(), e.line(), e.column());
        }
    }
}
