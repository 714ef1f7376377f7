package rivo.core.estate;

import java.util.List;
import java.util.Map;

/** Whether the OUs are a tree: one root, which is not fenced, and parents that lead to it. */
final class OuChecks {

    private final ProblemList problems;
    private final Map<String, Ou> byId;

    OuChecks(ProblemList problems, Map<String, Ou> byId) {
        this.problems = problems;
        this.byId = byId;
    }

    void check(List<Ou> ous) {
        boolean rooted = false;
        for (int i = 0; i < ous.size(); i++) {
            Ou ou = ous.get(i);
            String at = "ous[" + i + "]";
            problems.known(byId::containsKey, "OU", ou.parent(), at + ".parent");
            if (ou.parent() != null) {
                continue;
            }
            if (rooted) {
                problems.add("second-root", at + ".parent", "\"" + ou.id() + "\" is a second root; give it a parent.");
            }
            rooted = true;
            if (ou.fenced()) {
                problems.add("fenced-root", at + ".fenced", "The root cannot be fenced; fence an OU below it.");
            }
        }
        if (!rooted) {
            problems.add("no-root", "ous", "There is no root; give one OU the parent null.");
        }
        cycles(ous);
    }

    private void cycles(List<Ou> ous) {
        for (List<String> cycle : Cycles.in(byId.keySet(), this::parent)) {
            report(ous, cycle);
        }
        for (int i = 0; i < ous.size(); i++) {
            if (ous.get(i).id().equals(ous.get(i).parent())) {
                cyclic(i, ous.get(i));
            }
        }
    }

    private void report(List<Ou> ous, List<String> cycle) {
        for (int i = 0; i < ous.size(); i++) {
            if (cycle.contains(ous.get(i).id())) {
                cyclic(i, ous.get(i));
                return;
            }
        }
    }

    private void cyclic(int index, Ou ou) {
        problems.add("ou-cycle", "ous[" + index + "].parent", "The OU \"" + ou.id()
                + "\" is below itself; give it a parent that leads to the root.");
    }

    private List<String> parent(String id) {
        Ou ou = byId.get(id);
        return ou == null || ou.parent() == null ? List.of() : List.of(ou.parent());
    }
}
