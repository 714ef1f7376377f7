#!/usr/bin/env bash
# Makes the sample installers of this folder: small files of made-up software in real formats, for the tests and for
# whoever tries the demo. They are kept in the repository, so this is run only when one shall change.
# Needs Debian's packages wixl, nsis, rpm, osslsigncode, dpkg, zip and openssl.
set -euo pipefail
cd "$(dirname "$0")"
out=$PWD
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"

# A made-up authority, which the demo trusts: it issues the certificates of makers, and makes time stamps. Its key is not kept.
openssl req -x509 -newkey rsa:2048 -nodes -days 7300 -subj "/O=Fernhill Signing Authority/CN=Fernhill Signing Authority" \
  -addext basicConstraints=critical,CA:true -keyout "$work/fernhill.key" -out "$work/fernhill.pem" 2>/dev/null
cp fernhill.pem "$out/fernhill-signing-authority.pem"
cp fernhill.pem "$out/../rivo-server/src/main/resources/demo/fernhill-signing-authority.pem"
issued() { # file, organisation, purpose
  printf 'basicConstraints=CA:false\nextendedKeyUsage=critical,%s\n' "$3" > "$work/$1.ext"
  openssl req -new -newkey rsa:2048 -nodes -subj "/O=$2/CN=$2" -keyout "$work/$1.key" -out "$work/$1.csr" 2>/dev/null
  openssl x509 -req -in "$work/$1.csr" -extfile "$work/$1.ext" -days 3650 -CA "$work/fernhill.pem" -CAkey "$work/fernhill.key" -CAcreateserial \
    -out "$work/$1.pem" 2>/dev/null
}
issued stamps "Fernhill Signing Authority" timeStamping
issued tarnlog "Tarnlog" codeSigning
issued kingfisher "Kingfisher Metering" codeSigning
by() { # maker: how that signs, with a time stamp
  printf '%s\n' -h sha256 -certs "$work/$1.pem" -key "$work/$1.key" -ac "$work/fernhill.pem" -TSA-certs "$work/stamps.pem" -TSA-key "$work/stamps.key"
}
# Somebody who packages for others, and whom no authority knows.
openssl req -x509 -newkey rsa:2048 -nodes -days 3650 -subj "/O=Delwick Packaging/CN=Delwick Packaging" -addext extendedKeyUsage=codeSigning \
  -keyout "$work/delwick.key" -out "$work/delwick.pem" 2>/dev/null

# A Windows Installer database.
echo "Siltscope Lab 4.4.0, a made-up program" > siltscope.txt
cat > siltscope.wxs <<'X'
<?xml version="1.0" encoding="utf-8"?>
<Wix xmlns="http://schemas.microsoft.com/wix/2006/wi">
  <Product Id="{5C1E0B7A-4D2F-4E8B-9A61-3F7C2D9090F2}" Name="Siltscope Lab" Language="1033" Version="4.4.0"
      Manufacturer="Fenwick Instruments" UpgradeCode="{A7D3E6C4-1B52-4F0E-8C9D-6E2A5B3F4D10}">
    <Package InstallerVersion="500" Compressed="yes" InstallScope="perMachine" Description="Water analysis" />
    <Media Id="1" Cabinet="media1.cab" EmbedCab="yes" />
    <Directory Id="TARGETDIR" Name="SourceDir">
      <Directory Id="ProgramFiles64Folder">
        <Directory Id="INSTALLDIR" Name="Siltscope Lab">
          <Component Id="Main" Guid="{0E6F1D5B-93C7-4B7A-A0D8-27C5B1E94F33}" Win64="yes">
            <File Id="Text" Source="siltscope.txt" KeyPath="yes" />
          </Component>
        </Directory>
      </Directory>
    </Directory>
    <Feature Id="Complete" Level="1"><ComponentRef Id="Main" /></Feature>
  </Product>
</Wix>
X
wixl -a x64 -o siltscope.msi siltscope.wxs
rm -f "$out/siltscope-lab-4.4.0-x64.msi" "$out/tarnlog-viewer-3.4.0-setup.exe" "$out/kingfisher-meter-reader-6.2.0-x64.msix"
osslsigncode sign -h sha256 -certs delwick.pem -key delwick.key -in siltscope.msi -out "$out/siltscope-lab-4.4.0-x64.msi" >/dev/null

# A set-up program of a well-known installer kind.
cat > tarnlog.nsi <<'X'
Unicode true
Name "Tarnlog Viewer"
OutFile "tarnlog.exe"
InstallDir "$PROGRAMFILES\Tarnlog Viewer"
RequestExecutionLevel admin
SetCompressor lzma
VIProductVersion "3.4.0.0"
VIAddVersionKey /LANG=1033 "ProductName" "Tarnlog Viewer"
VIAddVersionKey /LANG=1033 "CompanyName" "Tarnlog"
VIAddVersionKey /LANG=1033 "FileVersion" "3.4.0"
VIAddVersionKey /LANG=1033 "ProductVersion" "3.4.0"
VIAddVersionKey /LANG=1033 "FileDescription" "Reads logger files"
VIAddVersionKey /LANG=1033 "LegalCopyright" "Tarnlog"
Section
  SetOutPath "$INSTDIR"
  WriteUninstaller "$INSTDIR\remove.exe"
  WriteRegStr HKLM "Software\Microsoft\Windows\CurrentVersion\Uninstall\Tarnlog Viewer" "DisplayName" "Tarnlog Viewer"
SectionEnd
Section "Uninstall"
  Delete "$INSTDIR\remove.exe"
SectionEnd
X
makensis -V0 tarnlog.nsi
mapfile -t how < <(by tarnlog)
osslsigncode sign "${how[@]}" -in tarnlog.exe -out "$out/tarnlog-viewer-3.4.0-setup.exe" >/dev/null

# A Debian package.
mkdir -p deb/DEBIAN deb/opt/tidewatch
echo "Tidewatch 2.1.0, a made-up program" > deb/opt/tidewatch/tidewatch.txt
cat > deb/DEBIAN/control <<'X'
Package: tidewatch
Version: 2.1.0-1
Architecture: amd64
Maintainer: Sallow & Finch <packages@sallowfinch.example>
Depends: graphkit-runtime (>= 2.3), libc6
Installed-Size: 18240
Homepage: https://sallowfinch.example/tidewatch
Section: science
Priority: optional
Description: Tidewatch tide and level charts
 Shows the levels of the estuary gauges.
X
dpkg-deb --root-owner-group -Zxz -b deb "$out/tidewatch_2.1.0-1_amd64.deb" >/dev/null
sed -i 's/^Version: .*/Version: 2.2.0-1/' deb/DEBIAN/control
dpkg-deb --root-owner-group -Zzstd -b deb "$out/tidewatch_2.2.0-1_amd64.deb" >/dev/null

# The same as an RPM package.
cat > tidewatch.spec <<'X'
Name: tidewatch
Version: 2.1.0
Release: 1
Summary: Tidewatch tide and level charts
License: Made-up
Vendor: Sallow & Finch
URL: https://sallowfinch.example/tidewatch
Requires: graphkit-runtime >= 2.3
%description
Shows the levels of the estuary gauges.
%install
mkdir -p %{buildroot}/opt/tidewatch
echo "Tidewatch 2.1.0, a made-up program" > %{buildroot}/opt/tidewatch/tidewatch.txt
%files
/opt/tidewatch
X
rpmbuild -bb --target x86_64 --define "_topdir $work/rpm" --define "_rpmdir $out" --define "_build_name_fmt %%{NAME}-%%{VERSION}-%%{RELEASE}.%%{ARCH}.rpm" tidewatch.spec >/dev/null 2>&1

# An MSIX package: a ZIP archive with a manifest.
mkdir msix && cd msix
cat > AppxManifest.xml <<'X'
<?xml version="1.0" encoding="utf-8"?>
<Package xmlns="http://schemas.microsoft.com/appx/manifest/foundation/windows10"
    xmlns:uap="http://schemas.microsoft.com/appx/manifest/uap/windows10">
  <Identity Name="KingfisherMetering.MeterReader" Publisher="CN=Kingfisher Metering, O=Kingfisher Metering" Version="6.1.0.0"
      ProcessorArchitecture="arm64" />
  <Properties>
    <DisplayName>Kingfisher Meter Reader</DisplayName>
    <PublisherDisplayName>Kingfisher Metering</PublisherDisplayName>
    <Description>Reads meters on the round</Description>
    <Logo>logo.png</Logo>
  </Properties>
  <Dependencies>
    <TargetDeviceFamily Name="Windows.Desktop" MinVersion="10.0.19045.0" MaxVersionTested="10.0.26100.0" />
    <PackageDependency Name="Ardley.GraphkitRuntime" MinVersion="2.4.0.0" Publisher="CN=Ardley Graphics" />
  </Dependencies>
  <Resources><Resource Language="en-gb" /></Resources>
  <Applications>
    <Application Id="Reader" Executable="reader.exe" EntryPoint="Windows.FullTrustApplication">
      <uap:VisualElements DisplayName="Kingfisher Meter Reader" Description="Reads meters" BackgroundColor="transparent"
          Square150x150Logo="logo.png" Square44x44Logo="logo.png" />
    </Application>
  </Applications>
</Package>
X
printf 'Kingfisher Meter Reader 6.1.0, a made-up program' > reader.exe
printf '%s' 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==' | base64 -d > logo.png
printf '<?xml version="1.0" encoding="UTF-8"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/vnd.ms-appx.manifest+xml"/><Default Extension="exe" ContentType="application/x-msdownload"/><Default Extension="png" ContentType="image/png"/></Types>' > '[Content_Types].xml'
rm -f "$out/kingfisher-meter-reader-6.1.0-arm64.msix"
zip -q -X "$out/kingfisher-meter-reader-6.1.0-arm64.msix" '[Content_Types].xml' AppxManifest.xml reader.exe logo.png

# The next release of it, for another architecture, signed: signing asks for a map of the blocks of every file.
sed -i 's/6\.1\.0\.0/6.2.0.0/; s/arm64/x64/' AppxManifest.xml
block() { # file: its name, its size, that of its header in the archive, and the hash of its only block
  printf '<File Name="%s" Size="%s" LfhSize="%s"><Block Hash="%s"/></File>' "$1" "$(stat -c %s "$1")" $((30 + ${#1})) \
    "$(openssl dgst -sha256 -binary "$1" | base64 -w0)"
}
{ printf '<?xml version="1.0" encoding="UTF-8" standalone="no"?><BlockMap xmlns="http://schemas.microsoft.com/appx/2010/blockmap" HashMethod="http://www.w3.org/2001/04/xmlenc#sha256">'
  block reader.exe; block logo.png; block AppxManifest.xml; printf '</BlockMap>'; } > AppxBlockMap.xml
zip -q -X -0 ../signed.msix reader.exe logo.png AppxManifest.xml AppxBlockMap.xml '[Content_Types].xml'
cd ..
mapfile -t how < <(by kingfisher)
osslsigncode sign "${how[@]}" -in signed.msix \
  -out "$out/kingfisher-meter-reader-6.2.0-x64.msix" >/dev/null

# A script.
cat > "$out/set-proxy-for-vans.sh" <<'X'
#!/bin/sh
# Points the vans' devices at the mirror on board.
set -eu
printf 'proxy=van.quillbrook.example\n' > /etc/van-proxy.conf
X
ls -l "$out"
