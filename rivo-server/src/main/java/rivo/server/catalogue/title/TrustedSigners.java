package rivo.server.catalogue.title;

import rivo.formats.installer.Organisations;

/** Who may sign the files of a maker: the maker, and whom somebody has named for one of that maker's titles. Pure functions. */
public final class TrustedSigners {

    private TrustedSigners() {
    }

    public static boolean maySign(Titles titles, String signer, String maker) {
        return Organisations.same(signer, maker) || titles.all().stream().filter(title -> Organisations.same(title.maker(), maker))
                .anyMatch(title -> title.trustedSigners().stream().anyMatch(trusted -> Organisations.same(trusted, signer)));
    }
}
