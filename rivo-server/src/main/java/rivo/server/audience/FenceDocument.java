package rivo.server.audience;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import rivo.core.estate.Estate;
import rivo.core.estate.Ou;
import rivo.core.estate.RefusedException;
import rivo.server.document.Document;
import rivo.server.document.DocumentKind;

/**
 * A fence around an OU: from outside, only binding assignments cross it. It stays while the OU is away from the directory.
 *
 * @param id that of the OU
 */
public record FenceDocument(String id) implements Document {

    public static final DocumentKind<FenceDocument> KIND = new Kind();

    private static final class Kind extends DocumentKind<FenceDocument> {

        Kind() {
            super("fence", FenceDocument.class);
        }

        @Override
        protected Estate estate(Estate before, List<FenceDocument> put, Set<String> retired) {
            for (FenceDocument fence : put) {
                if (before.ous().find(fence.id()) == null || before.ous().root().id().equals(fence.id())) {
                    throw new RefusedException("bad-fence", "ou:" + fence.id(),
                            "A fence stands around an OU of the directory that is not its root; choose one.");
                }
            }
            Set<String> raised = put.stream().map(FenceDocument::id).collect(Collectors.toSet());
            List<Ou> ous = before.ous().all().stream().map(ou -> {
                boolean fenced = !retired.contains(ou.id()) && (ou.fenced() || raised.contains(ou.id()));
                return fenced == ou.fenced() ? ou : new Ou(ou.id(), ou.name(), ou.dn(), ou.parent(), fenced);
            }).toList();
            return before.withOus(ous);
        }
    }
}
