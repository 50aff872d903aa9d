<?xml version="1.0" encoding="utf-8"?>
<!DOCTYPE TS>
<TS version="2.1" language="de">
<context>
    <name>CopyColumns</name>
    <message>
        <source>Recording</source>
        <translation>Aufnahme</translation>
    </message>
    <message>
        <source>Same</source>
        <translation>Gleich</translation>
    </message>
    <message>
        <source>; holds something damaged or not what it claims</source>
        <translation>; enthält etwas, das beschädigt ist oder nicht, was es angibt</translation>
    </message>
    <message>
        <source>Held</source>
        <translation>Da</translation>
    </message>
    <message>
        <source>Frees</source>
        <translation>Frei wird</translation>
    </message>
    <message>
        <source>nothing</source>
        <translation>nichts</translation>
    </message>
    <message>
        <source>What keeping one copy of the main recording would free</source>
        <translation>Was frei würde, wenn eine Kopie der Hauptaufnahme bliebe</translation>
    </message>
    <message>
        <source>Decision</source>
        <translation>Entscheidung</translation>
    </message>
    <message>
        <source>Volume</source>
        <translation>Datenträger</translation>
    </message>
    <message>
        <source> (away)</source>
        <translation> (nicht da)</translation>
    </message>
    <message>
        <source>Path</source>
        <translation>Pfad</translation>
    </message>
    <message>
        <source>Sound</source>
        <translation>Klang</translation>
    </message>
    <message>
        <source>damaged</source>
        <translation>beschädigt</translation>
    </message>
    <message>
        <source>Written</source>
        <translation>Geschrieben</translation>
    </message>
    <message>
        <source>Tags</source>
        <translation>Tags</translation>
    </message>
    <message>
        <source>Names</source>
        <translation>Namen</translation>
    </message>
    <message>
        <source>%1 linked</source>
        <translation>%1 verknüpft</translation>
    </message>
    <message>
        <source>One file with several names: retiring one of them frees nothing</source>
        <translation>Eine Datei mit mehreren Namen: einen davon auszusondern macht nichts frei</translation>
    </message>
    <message>
        <source>References</source>
        <translation>Verweise</translation>
    </message>
    <message>
        <source>none</source>
        <translation>keine</translation>
    </message>
</context>
<context>
    <name>FileMenu</name>
    <message>
        <source>Copy path</source>
        <translation>Pfad kopieren</translation>
    </message>
    <message>
        <source>Open its folder</source>
        <translation>Seinen Ordner öffnen</translation>
    </message>
</context>
<context>
    <name>LedgerWords</name>
    <message>
        <source>Survey</source>
        <translation>Erfassung</translation>
    </message>
    <message>
        <source>Verified</source>
        <translation>Geprüft</translation>
    </message>
    <message>
        <source>Carried out</source>
        <translation>Ausgeführt</translation>
    </message>
    <message>
        <source>Taken back</source>
        <translation>Zurückgenommen</translation>
    </message>
    <message>
        <source>Put in order</source>
        <translation>In Ordnung gebracht</translation>
    </message>
    <message>
        <source> (taken back)</source>
        <translation> (zurückgenommen)</translation>
    </message>
    <message>
        <source>refused</source>
        <translation>abgelehnt</translation>
    </message>
    <message>
        <source>waits to be settled</source>
        <translation>wartet auf Ordnung</translation>
    </message>
    <message>
        <source>done, not confirmed</source>
        <translation>getan, nicht bestätigt</translation>
    </message>
    <message>
        <source>carried out</source>
        <translation>ausgeführt</translation>
    </message>
    <message>
        <source>not done</source>
        <translation>nicht getan</translation>
    </message>
    <message>
        <source>taken back</source>
        <translation>zurückgenommen</translation>
    </message>
    <message>
        <source> Done, but the drive of %1 has not confirmed that this outlasts a loss of power (%2). Look to that drive; the next start asks again.</source>
        <translation> Getan, aber das Laufwerk von %1 hat nicht bestätigt, dass es einen Stromausfall übersteht (%2). Sehen Sie nach diesem Laufwerk; der nächste Start fragt erneut.</translation>
    </message>
</context>
<context>
    <name>MarkWords</name>
    <message>
        <source>genuine</source>
        <translation>echt</translation>
    </message>
    <message>
        <source>sound</source>
        <translation>heil</translation>
    </message>
    <message>
        <source>keep</source>
        <translation>behalten</translation>
    </message>
    <message>
        <source>retire</source>
        <translation>aussondern</translation>
    </message>
    <message>
        <source>write off</source>
        <translation>abschreiben</translation>
    </message>
    <message>
        <source>unreadable</source>
        <translation>nicht lesbar</translation>
    </message>
    <message>
        <source>missing</source>
        <translation>fehlt</translation>
    </message>
    <message>
        <source>copies</source>
        <translation>Kopien</translation>
    </message>
    <message>
        <source>moved</source>
        <translation>verschoben</translation>
    </message>
    <message>
        <source>away</source>
        <translation>nicht da</translation>
    </message>
    <message>
        <source>doubtful</source>
        <translation>zweifelhaft</translation>
    </message>
    <message>
        <source>transcoded</source>
        <translation>umkodiert</translation>
    </message>
    <message>
        <source>undetermined</source>
        <translation>unbestimmt</translation>
    </message>
    <message>
        <source>accepted</source>
        <translation>angenommen</translation>
    </message>
    <message>
        <source>retag</source>
        <translation>Tags ändern</translation>
    </message>
    <message>
        <source>Nothing is known against it.</source>
        <translation>Nichts spricht dagegen.</translation>
    </message>
    <message>
        <source>Of its copy set, this one stays.</source>
        <translation>Von ihrem Kopiensatz bleibt diese.</translation>
    </message>
    <message>
        <source>It goes to the trash once the docket is carried out, and can be had back.</source>
        <translation>Sie kommt in den Papierkorb, wenn der Laufzettel ausgeführt wird, und lässt sich zurückholen.</translation>
    </message>
    <message>
        <source>It is accepted as gone, and not shown as missing again.</source>
        <translation>Sie gilt als verloren und wird nicht wieder als fehlend gezeigt.</translation>
    </message>
    <message>
        <source>It cannot be read, does not decode whole, or is no longer what was recorded.</source>
        <translation>Sie ist nicht lesbar, lässt sich nicht ganz dekodieren oder ist nicht mehr, was verzeichnet war.</translation>
    </message>
    <message>
        <source>It was there at an earlier survey and is not now.</source>
        <translation>Sie war bei einer früheren Erfassung da und ist es jetzt nicht.</translation>
    </message>
    <message>
        <source>The same recording is held more than once.</source>
        <translation>Dieselbe Aufnahme ist mehr als einmal da.</translation>
    </message>
    <message>
        <source>It is known at another place, or lists are to lead to another place.</source>
        <translation>Sie ist an einem anderen Ort bekannt, oder Listen sollen an einen anderen Ort führen.</translation>
    </message>
    <message>
        <source>Its drive is not at hand.</source>
        <translation>Ihr Laufwerk ist nicht zur Hand.</translation>
    </message>
    <message>
        <source>Something speaks against it and does not decide: look, listen, say.</source>
        <translation>Etwas spricht dagegen und entscheidet nicht: ansehen, anhören, sagen.</translation>
    </message>
    <message>
        <source>Its sound went through a lossy encoder before, which it does not say.</source>
        <translation>Ihr Klang ging schon durch einen verlustbehafteten Encoder, was sie nicht angibt.</translation>
    </message>
    <message>
        <source>The evidence does not decide: too short, too quiet or too narrow to tell.</source>
        <translation>Der Befund entscheidet nicht: zu kurz, zu leise oder zu schmal, um es zu sagen.</translation>
    </message>
    <message>
        <source>You have said that it stays as it is.</source>
        <translation>Sie haben gesagt, dass sie bleibt, wie sie ist.</translation>
    </message>
    <message>
        <source>Its tags are to be written.</source>
        <translation>Ihre Tags sollen geschrieben werden.</translation>
    </message>
</context>
<context>
    <name>QObject</name>
    <message>
        <source>several</source>
        <translation>mehrere</translation>
    </message>
    <message>
        <source>%1%2%3 (from %4)</source>
        <translation>%1%2%3 (laut: %4)</translation>
    </message>
    <message>
        <source>data, left out</source>
        <translation>Daten, ausgelassen</translation>
    </message>
    <message>
        <source>not read yet</source>
        <translation>noch nicht gelesen</translation>
    </message>
    <message>
        <source>agreed</source>
        <translation>übereinstimmend</translation>
    </message>
    <message>
        <source>doubtful in %1</source>
        <translation>zweifelhaft bei %1</translation>
    </message>
    <message>
        <source>Track</source>
        <translation>Titel</translation>
    </message>
    <message>
        <source>Title</source>
        <translation>Titel</translation>
    </message>
    <message>
        <source>Artist</source>
        <translation>Künstler</translation>
    </message>
    <message>
        <source>Length</source>
        <translation>Länge</translation>
    </message>
    <message>
        <source>minutes, seconds and sectors of a seventy-fifth</source>
        <translation>Minuten, Sekunden und Sektoren zu einer Fünfundsiebzigstel</translation>
    </message>
    <message>
        <source>As read</source>
        <translation>Wie gelesen</translation>
    </message>
    <message>
        <source>Readings</source>
        <translation>Lesungen</translation>
    </message>
    <message>
        <source>of the sector that was read most often</source>
        <translation>des Sektors, der am häufigsten gelesen wurde</translation>
    </message>
    <message>
        <source>Register</source>
        <translation>Register</translation>
    </message>
    <message>
        <source>Held already</source>
        <translation>Schon vorhanden</translation>
    </message>
    <message>
        <source>Not read yet.</source>
        <translation>Noch nicht gelesen.</translation>
    </message>
    <message>
        <source>This track holds data; only audio is read.</source>
        <translation>Dieser Titel enthält Daten; gelesen wird nur Ton.</translation>
    </message>
    <message>
        <source>CRC-32 of all its samples %1 · peak %2 of full scale · read up to %3 times</source>
        <translation>CRC-32 aller Abtastwerte %1 · Spitze %2 der Vollaussteuerung · bis zu %3-mal gelesen</translation>
    </message>
    <message>
        <source>%1 to %2</source>
        <translation>%1 bis %2</translation>
    </message>
    <message>
        <source>Doubtful at %1.</source>
        <translation>Zweifelhaft bei %1.</translation>
    </message>
    <message>
        <source>, </source>
        <translation>, </translation>
    </message>
    <message>
        <source>%1 agreed only after readings that differed.</source>
        <translation>Erst nach abweichenden Lesungen gleich: %1.</translation>
    </message>
    <message>
        <source>Sounds like %1.</source>
        <translation>Klingt wie %1.</translation>
    </message>
    <message>
        <source>Recorded with pre-emphasis; that is kept as a mark and not taken out.</source>
        <translation>Mit Preemphasis aufgenommen; das wird vermerkt und nicht herausgerechnet.</translation>
    </message>
    <message>
        <source>ISRC %1</source>
        <translation>ISRC %1</translation>
    </message>
    <message>
        <source>tags edited</source>
        <translation>Tags bearbeitet</translation>
    </message>
    <message>
        <source>audio altered</source>
        <translation>Ton verändert</translation>
    </message>
    <message>
        <source>silent change</source>
        <translation>stille Änderung</translation>
    </message>
    <message>
        <source>cut short</source>
        <translation>abgeschnitten</translation>
    </message>
    <message>
        <source>replaced</source>
        <translation>ersetzt</translation>
    </message>
    <message>
        <source>missing</source>
        <translation>fehlt</translation>
    </message>
    <message>
        <source>Somebody edited the tags; the audio data are what they were.</source>
        <translation>Jemand hat die Tags bearbeitet; die Audiodaten sind, was sie waren.</translation>
    </message>
    <message>
        <source>The audio data are others, of the same recording: somebody altered it, or it was damaged.</source>
        <translation>Die Audiodaten sind andere, von derselben Aufnahme: jemand hat sie verändert, oder sie ist beschädigt.</translation>
    </message>
    <message>
        <source>Bits changed by themselves: size and time of writing are what they were.</source>
        <translation>Bits haben sich von selbst geändert: Größe und Zeit des Schreibens sind, wie sie waren.</translation>
    </message>
    <message>
        <source>It was cut short: what is left is its beginning.</source>
        <translation>Sie wurde abgeschnitten: übrig ist ihr Anfang.</translation>
    </message>
    <message>
        <source>Another recording stands in its place.</source>
        <translation>Eine andere Aufnahme steht an ihrer Stelle.</translation>
    </message>
    <message>
        <source>It is gone.</source>
        <translation>Sie ist fort.</translation>
    </message>
    <message>
        <source>take in</source>
        <translation>aufnehmen</translation>
    </message>
    <message>
        <source>replaces what is held</source>
        <translation>ersetzt Vorhandenes</translation>
    </message>
    <message>
        <source>held already</source>
        <translation>schon vorhanden</translation>
    </message>
    <message>
        <source>to be looked at</source>
        <translation>anzusehen</translation>
    </message>
    <message>
        <source>the arrival is better</source>
        <translation>der Neuzugang ist besser</translation>
    </message>
    <message>
        <source>it is better</source>
        <translation>es ist besser</translation>
    </message>
    <message>
        <source>as good</source>
        <translation>gleich gut</translation>
    </message>
    <message>
        <source>the evidence does not say</source>
        <translation>der Befund sagt es nicht</translation>
    </message>
    <message>
        <source>%1%2: %3; %4 (%5).</source>
        <translation>%1%2: %3; %4 (%5).</translation>
    </message>
    <message>
        <source>, away</source>
        <translation>, nicht da</translation>
    </message>
    <message>
        <source>Advice</source>
        <translation>Rat</translation>
    </message>
    <message>
        <source>Arrival</source>
        <translation>Neuzugang</translation>
    </message>
    <message>
        <source>It is</source>
        <translation>Es ist</translation>
    </message>
    <message>
        <source>damaged</source>
        <translation>beschädigt</translation>
    </message>
    <message>
        <source>not examined</source>
        <translation>nicht untersucht</translation>
    </message>
    <message>
        <source>Tags</source>
        <translation>Tags</translation>
    </message>
    <message>
        <source>as they are</source>
        <translation>wie sie sind</translation>
    </message>
    <message>
        <source>Held, or where to</source>
        <translation>Vorhanden, oder wohin</translation>
    </message>
    <message>
        <source>none; %1</source>
        <translation>keine; %1</translation>
    </message>
    <message>
        <source>none is known</source>
        <translation>keine ist bekannt</translation>
    </message>
    <message>
        <source>none is known, nor on offer</source>
        <translation>keine bekannt und keine im Angebot</translation>
    </message>
    <message>
        <source>cut</source>
        <translation>geschnitten</translation>
    </message>
    <message>
        <source>transcoded</source>
        <translation>umkodiert</translation>
    </message>
    <message>
        <source>under the limit</source>
        <translation>unter der Grenze</translation>
    </message>
    <message>
        <source>another edit</source>
        <translation>anderer Schnitt</translation>
    </message>
    <message>
        <source>another master</source>
        <translation>anderer Master</translation>
    </message>
    <message>
        <source>another length</source>
        <translation>andere Länge</translation>
    </message>
    <message>
        <source>only the tags</source>
        <translation>nur die Tags</translation>
    </message>
    <message>
        <source>no better</source>
        <translation>nicht besser</translation>
    </message>
    <message>
        <source>not on offer</source>
        <translation>nicht im Angebot</translation>
    </message>
    <message>
        <source>damaged itself</source>
        <translation>selbst beschädigt</translation>
    </message>
    <message>
        <source>on offer</source>
        <translation>im Angebot</translation>
    </message>
    <message>
        <source>at hand</source>
        <translation>zur Hand</translation>
    </message>
    <message>
        <source>away</source>
        <translation>nicht da</translation>
    </message>
    <message>
        <source>Holding</source>
        <translation>Datei</translation>
    </message>
    <message>
        <source>By its evidence</source>
        <translation>Nach ihrem Befund</translation>
    </message>
    <message>
        <source>Better is</source>
        <translation>Besser ist</translation>
    </message>
    <message>
        <source>to be replaced</source>
        <translation>zu ersetzen</translation>
    </message>
    <message>
        <source>Where</source>
        <translation>Wo</translation>
    </message>
    <message>
        <source>Candidate</source>
        <translation>Anwärter</translation>
    </message>
    <message>
        <source>better</source>
        <translation>besser</translation>
    </message>
    <message>
        <source>Lies</source>
        <translation>Liegt</translation>
    </message>
    <message>
        <source>At</source>
        <translation>Bei</translation>
    </message>
    <message>
        <source>and %1 more</source>
        <translation>und %1 weitere</translation>
    </message>
    <message>
        <source>audio as it is</source>
        <translation>Ton, wie er ist</translation>
    </message>
    <message>
        <source>lossless as FLAC</source>
        <translation>Verlustfreies als FLAC</translation>
    </message>
    <message>
        <source>lossless as MP3 V0</source>
        <translation>Verlustfreies als MP3 V0</translation>
    </message>
    <message>
        <source>lossless as Vorbis q7</source>
        <translation>Verlustfreies als Vorbis q7</translation>
    </message>
    <message>
        <source>lossless as AAC 192</source>
        <translation>Verlustfreies als AAC 192</translation>
    </message>
    <message>
        <source>lossless as Opus 128</source>
        <translation>Verlustfreies als Opus 128</translation>
    </message>
    <message>
        <source>all as Opus 96</source>
        <translation>alles als Opus 96</translation>
    </message>
</context>
<context>
    <name>SetWords</name>
    <message>
        <source>bytes</source>
        <translation>Byte</translation>
    </message>
    <message>
        <source>audio data</source>
        <translation>Audiodaten</translation>
    </message>
    <message>
        <source>samples</source>
        <translation>Abtastwerte</translation>
    </message>
    <message>
        <source>lossy copy</source>
        <translation>verlustbehaftete Kopie</translation>
    </message>
    <message>
        <source>other master</source>
        <translation>anderer Master</translation>
    </message>
    <message>
        <source>part</source>
        <translation>Teil</translation>
    </message>
    <message>
        <source>only the tags</source>
        <translation>nur die Tags</translation>
    </message>
    <message>
        <source>retire</source>
        <translation>aussondern</translation>
    </message>
    <message>
        <source>keep</source>
        <translation>behalten</translation>
    </message>
    <message>
        <source>stays</source>
        <translation>bleibt</translation>
    </message>
    <message>
        <source>keep (advised)</source>
        <translation>behalten (geraten)</translation>
    </message>
    <message>
        <source>retire (advised)</source>
        <translation>aussondern (geraten)</translation>
    </message>
    <message>
        <source>open</source>
        <translation>offen</translation>
    </message>
</context>
<context>
    <name>Spectrum</name>
    <message>
        <source>%1 dB</source>
        <translation>%1 dB</translation>
    </message>
    <message>
        <source>%1 kHz</source>
        <translation>%1 kHz</translation>
    </message>
</context>
<context>
    <name>core</name>
    <message>
        <source> (here %1)</source>
        <translation> (hier %1)</translation>
    </message>
    <message>
        <source> (noted of the file that it replaced)</source>
        <translation> (verzeichnet von der Datei, die sie ersetzte)</translation>
    </message>
    <message>
        <source> and better</source>
        <translation> und besser</translation>
    </message>
    <message>
        <source> at %1 kbit/s</source>
        <translation> mit %1 kbit/s</translation>
    </message>
    <message>
        <source> being written</source>
        <translation> im Schreiben</translation>
    </message>
    <message>
        <source> cannot be %1 into itself.</source>
        <translation> kann nicht in sich selbst: %1.</translation>
    </message>
    <message>
        <source> cannot be looked at now.</source>
        <translation> lässt sich jetzt nicht ansehen.</translation>
    </message>
    <message>
        <source> cannot be read from its drive any more, or only in part.</source>
        <translation> lässt sich nicht mehr oder nur zum Teil von ihrem Laufwerk lesen.</translation>
    </message>
    <message>
        <source> cannot be written into %1 so that it is found again.</source>
        <translation> lässt sich nicht so in %1 schreiben, dass es wiedergefunden wird.</translation>
    </message>
    <message>
        <source> could not be compared with it: it was not examined.</source>
        <translation> ließ sich nicht damit vergleichen: sie wurde nicht untersucht.</translation>
    </message>
    <message>
        <source> does not decode: its audio data could not be proven unchanged.</source>
        <translation> lässt sich nicht dekodieren: dass ihre Audiodaten gleich sind, war nicht zu belegen.</translation>
    </message>
    <message>
        <source> had been %1; the ledger now says so.</source>
        <translation> war schon so behandelt (%1); das Protokoll sagt es jetzt.</translation>
    </message>
    <message>
        <source> had been changed as decided; the ledger now says so.</source>
        <translation> war schon geändert wie entschieden; das Protokoll sagt es jetzt.</translation>
    </message>
    <message>
        <source> had been put back as it was; the ledger now says so.</source>
        <translation> war schon wie zuvor zurückgelegt; das Protokoll sagt es jetzt.</translation>
    </message>
    <message>
        <source> had been put back; the ledger now says so.</source>
        <translation> war schon zurückgelegt; das Protokoll sagt es jetzt.</translation>
    </message>
    <message>
        <source> has a name that cannot stand in %1.</source>
        <translation> hat einen Namen, der in %1 nicht stehen kann.</translation>
    </message>
    <message>
        <source> has letters that cannot be written in its list, which is in ISO 8859-1.</source>
        <translation> hat Buchstaben, die sich in ihre Liste nicht schreiben lassen, denn die ist in ISO 8859-1.</translation>
    </message>
    <message>
        <source> holds nothing beside its audio and its tags.</source>
        <translation> enthält nichts neben Ton und Tags.</translation>
    </message>
    <message>
        <source> is no audio any more.</source>
        <translation> ist keine Tonaufnahme mehr.</translation>
    </message>
    <message>
        <source> is not on %1, where %2 is used; its player would not find it.</source>
        <translation> ist nicht auf %1, wo %2 benutzt wird; ihr Abspieler fände sie nicht.</translation>
    </message>
    <message>
        <source> is not there any more; nothing is left to be changed in it.</source>
        <translation> ist nicht mehr da; es bleibt nichts darin zu ändern.</translation>
    </message>
    <message>
        <source> is not there now.</source>
        <translation> ist jetzt nicht da.</translation>
    </message>
    <message>
        <source> is not there.</source>
        <translation> ist nicht da.</translation>
    </message>
    <message>
        <source> is there already.</source>
        <translation> ist schon da.</translation>
    </message>
    <message>
        <source> lies where this player does not look: outside of %1.</source>
        <translation> liegt, wo dieser Abspieler nicht hinsieht: außerhalb von %1.</translation>
    </message>
    <message>
        <source> made from it</source>
        <translation> daraus gemacht</translation>
    </message>
    <message>
        <source> turned out to be another recording.</source>
        <translation> erwies sich als eine andere Aufnahme.</translation>
    </message>
    <message>
        <source> was not %1 yet; it still waits on the docket.</source>
        <translation> ist noch nicht so behandelt (%1); es wartet weiter auf dem Laufzettel.</translation>
    </message>
    <message>
        <source> was not changed yet; it is as it was.</source>
        <translation> war noch nicht geändert; es ist, wie es war.</translation>
    </message>
    <message>
        <source> was not put back yet.</source>
        <translation> war noch nicht zurückgelegt.</translation>
    </message>
    <message>
        <source>&quot;%1&quot; is no form. Forms are mp3:V0 to mp3:V9, mp3:KBITS, aac:KBITS, opus:KBITS, vorbis:q0 to vorbis:q10, flac and wav; @SECONDS or @PERCENT% after one makes an excerpt.</source>
        <translation>„%1“ ist keine Form. Formen sind mp3:V0 bis mp3:V9, mp3:KBITS, aac:KBITS, opus:KBITS, vorbis:q0 bis vorbis:q10, flac und wav; @SEKUNDEN oder @PROZENT% dahinter macht einen Auszug.</translation>
    </message>
    <message>
        <source>&quot;.&quot; is followed by how many digits a number shall have, 1 to 9.</source>
        <translation>Auf „.“ folgt, wie viele Ziffern eine Nummer haben soll, 1 bis 9.</translation>
    </message>
    <message>
        <source>&quot;|&quot; stands between two fields.</source>
        <translation>„|“ steht zwischen zwei Feldern.</translation>
    </message>
    <message>
        <source>%1 % of all samples stand at full scale</source>
        <translation>%1 % aller Abtastwerte sind voll ausgesteuert</translation>
    </message>
    <message>
        <source>%1 %2 was put back.</source>
        <translation>Zurückgelegt: %1 %2.</translation>
    </message>
    <message>
        <source>%1 %2. The catalogue was left as it is.</source>
        <translation>%1 %2. Der Katalog blieb, wie er war.</translation>
    </message>
    <message>
        <source>%1 (%2) unpacks to more than %3: as much as none of recordings does. It was not looked at any further.</source>
        <translation>%1 (%2) entpackt sich zu mehr als %3: so viel wie keine Tonaufnahme. Es wurde nicht weiter angesehen.</translation>
    </message>
    <message>
        <source>%1 What was written of it is still there.</source>
        <translation>%1 Was davon geschrieben wurde, ist noch da.</translation>
    </message>
    <message>
        <source>%1 after an interruption</source>
        <translation>%1 nach einer Unterbrechung</translation>
    </message>
    <message>
        <source>%1 after the last frame</source>
        <translation>%1 nach dem letzten Frame</translation>
    </message>
    <message>
        <source>%1 after the last page</source>
        <translation>%1 nach der letzten Seite</translation>
    </message>
    <message>
        <source>%1 and %2 differ by now; survey them again.</source>
        <translation>%1 und %2 weichen inzwischen voneinander ab; erfassen Sie beide neu.</translation>
    </message>
    <message>
        <source>%1 and %2 lie within each other; one of them is enough.</source>
        <translation>%1 und %2 liegen ineinander; eines davon genügt.</translation>
    </message>
    <message>
        <source>%1 and its copy are not what was recorded; survey them again.</source>
        <translation>%1 und ihre Kopie sind nicht, was verzeichnet war; erfassen Sie sie neu.</translation>
    </message>
    <message>
        <source>%1 as the keeper</source>
        <translation>%1 als Bleibende</translation>
    </message>
    <message>
        <source>%1 at %2 kbit/s</source>
        <translation>%1 mit %2 kbit/s</translation>
    </message>
    <message>
        <source>%1 became shorter while it was read.</source>
        <translation>%1 wurde beim Lesen kürzer.</translation>
    </message>
    <message>
        <source>%1 became shorter.</source>
        <translation>%1 wurde kürzer.</translation>
    </message>
    <message>
        <source>%1 behind the last box</source>
        <translation>%1 hinter dem letzten Kasten</translation>
    </message>
    <message>
        <source>%1 behind the last chunk</source>
        <translation>%1 hinter dem letzten Stück</translation>
    </message>
    <message>
        <source>%1 belongs to another user.</source>
        <translation>%1 gehört einem anderen Benutzer.</translation>
    </message>
    <message>
        <source>%1 bits are really used</source>
        <translation>%1 Bits sind wirklich genutzt</translation>
    </message>
    <message>
        <source>%1 cannot be forgotten while %2. %3</source>
        <translation>%1 lässt sich nicht vergessen, solange noch da ist: %2. %3</translation>
    </message>
    <message>
        <source>%1 cannot be looked at now</source>
        <translation>%1 lässt sich jetzt nicht ansehen</translation>
    </message>
    <message>
        <source>%1 cannot be looked at now.</source>
        <translation>%1 lässt sich jetzt nicht ansehen.</translation>
    </message>
    <message>
        <source>%1 cannot be looked at now: whether anything stands there is not known. Look to its drive, then try again.</source>
        <translation>%1 lässt sich jetzt nicht ansehen: ob dort etwas steht, ist nicht bekannt. Sehen Sie nach dem Laufwerk und versuchen Sie es noch einmal.</translation>
    </message>
    <message>
        <source>%1 cannot be opened as audio.</source>
        <translation>%1 lässt sich nicht als Ton öffnen.</translation>
    </message>
    <message>
        <source>%1 cannot be played: it holds no audio that can be decoded.</source>
        <translation>%1 lässt sich nicht abspielen: darin ist kein Ton, der sich dekodieren lässt.</translation>
    </message>
    <message>
        <source>%1 cannot be put back now: its volume is away.</source>
        <translation>%1 lässt sich jetzt nicht zurücklegen: der Datenträger ist nicht da.</translation>
    </message>
    <message>
        <source>%1 cannot be put back: %2.</source>
        <translation>%1 lässt sich nicht zurücklegen: %2.</translation>
    </message>
    <message>
        <source>%1 cannot be put back: its volume was forgotten.</source>
        <translation>%1 lässt sich nicht zurücklegen: der Datenträger wurde vergessen.</translation>
    </message>
    <message>
        <source>%1 cannot be read as an XSPF list.</source>
        <translation>%1 lässt sich nicht als XSPF-Liste lesen.</translation>
    </message>
    <message>
        <source>%1 cannot be read there.</source>
        <translation>%1 lässt sich dort nicht lesen.</translation>
    </message>
    <message>
        <source>%1 cannot be read whole.</source>
        <translation>%1 lässt sich nicht ganz lesen.</translation>
    </message>
    <message>
        <source>%1 cannot be read.</source>
        <translation>%1 lässt sich nicht lesen.</translation>
    </message>
    <message>
        <source>%1 cannot be unpacked there.</source>
        <translation>%1 lässt sich dort nicht entpacken.</translation>
    </message>
    <message>
        <source>%1 cannot be unpacked%2.</source>
        <translation>%1 lässt sich nicht entpacken%2.</translation>
    </message>
    <message>
        <source>%1 cannot be written over: %2.</source>
        <translation>%1 lässt sich nicht überschreiben: %2.</translation>
    </message>
    <message>
        <source>%1 cannot hold a picture.</source>
        <translation>%1 kann kein Bild enthalten.</translation>
    </message>
    <message>
        <source>%1 cannot hold the field %2.</source>
        <translation>%1 kann das Feld %2 nicht enthalten.</translation>
    </message>
    <message>
        <source>%1 cannot stand in a list of this kind: it would be read as something else.</source>
        <translation>%1 kann in einer solchen Liste nicht stehen: es würde als etwas anderes gelesen.</translation>
    </message>
    <message>
        <source>%1 cannot take the place of %2: %3.</source>
        <translation>%1 kann nicht an die Stelle von %2 treten: %3.</translation>
    </message>
    <message>
        <source>%1 carried out</source>
        <translation>%1 ausgeführt</translation>
    </message>
    <message>
        <source>%1 changed after it was checked; it stays.</source>
        <translation>%1 änderte sich nach der Prüfung; sie bleibt.</translation>
    </message>
    <message>
        <source>%1 could not be examined: %2.</source>
        <translation>%1 ließ sich nicht untersuchen: %2.</translation>
    </message>
    <message>
        <source>%1 could not be looked into: %2.</source>
        <translation>In %1 ließ sich nicht hineinsehen: %2.</translation>
    </message>
    <message>
        <source>%1 could not be saved as %2: %3</source>
        <translation>%1 ließ sich nicht als %2 sichern: %3</translation>
    </message>
    <message>
        <source>%1 could not be written in that form.</source>
        <translation>%1 ließ sich nicht in dieser Form schreiben.</translation>
    </message>
    <message>
        <source>%1 did not come over whole: what was read back is not what was compared.</source>
        <translation>%1 kam nicht ganz herüber: was zurückgelesen wurde, ist nicht das Verglichene.</translation>
    </message>
    <message>
        <source>%1 does not answer any more; its drive may hang.</source>
        <translation>%1 antwortet nicht mehr; vielleicht hängt das Laufwerk.</translation>
    </message>
    <message>
        <source>%1 does not decode to the samples that were read of the disc.</source>
        <translation>%1 ergibt dekodiert nicht die Abtastwerte, die von der Disc gelesen wurden.</translation>
    </message>
    <message>
        <source>%1 does not fit (%2): %3.</source>
        <translation>%1 passt nicht (%2): %3.</translation>
    </message>
    <message>
        <source>%1 does not fit: %2.</source>
        <translation>%1 passt nicht: %2.</translation>
    </message>
    <message>
        <source>%1 gives less than was asked.</source>
        <translation>%1 gibt weniger, als verlangt war.</translation>
    </message>
    <message>
        <source>%1 goes</source>
        <translation>%1 geht</translation>
    </message>
    <message>
        <source>%1 h %2 min</source>
        <translation>%1 h %2 min</translation>
    </message>
    <message>
        <source>%1 has %2, and the image %3.</source>
        <translation>%1 hat %2 und das Abbild %3.</translation>
    </message>
    <message>
        <source>%1 has arrived too and is the same recording; what is left is judged once that is filed.</source>
        <translation>%1 ist auch angekommen und dieselbe Aufnahme; das Übrige wird beurteilt, wenn das eingeordnet ist.</translation>
    </message>
    <message>
        <source>%1 has no audio track %2.</source>
        <translation>%1 hat keinen Tontitel %2.</translation>
    </message>
    <message>
        <source>%1 has no room for it: it takes %2, and %3 are free.</source>
        <translation>%1 hat keinen Platz dafür: gebraucht werden %2, frei sind %3.</translation>
    </message>
    <message>
        <source>%1 has no room for the %2 that are left.</source>
        <translation>%1 hat keinen Platz für die übrigen %2.</translation>
    </message>
    <message>
        <source>%1 has room for %2, and about %3 are needed.</source>
        <translation>%1 hat Platz für %2, gebraucht werden etwa %3.</translation>
    </message>
    <message>
        <source>%1 has the name and is %2</source>
        <translation>%1 hat den Namen und ist %2</translation>
    </message>
    <message>
        <source>%1 holds audio in a form that cannot be decoded (%2).</source>
        <translation>%1 enthält Ton in einer Form, die sich nicht dekodieren lässt (%2).</translation>
    </message>
    <message>
        <source>%1 holds data only, and no audio track.</source>
        <translation>%1 enthält nur Daten und keinen Tontitel.</translation>
    </message>
    <message>
        <source>%1 holds more than %2 files; the rest was not looked at.</source>
        <translation>%1 enthält mehr als %2 Dateien; der Rest wurde nicht angesehen.</translation>
    </message>
    <message>
        <source>%1 holds moving pictures.</source>
        <translation>%1 enthält bewegte Bilder.</translation>
    </message>
    <message>
        <source>%1 holds no %2 any more.</source>
        <translation>%1 enthält kein %2 mehr.</translation>
    </message>
    <message>
        <source>%1 holds no audio that can be decoded.</source>
        <translation>%1 enthält keinen Ton, der sich dekodieren lässt.</translation>
    </message>
    <message>
        <source>%1 holds no audio.</source>
        <translation>%1 enthält keinen Ton.</translation>
    </message>
    <message>
        <source>%1 holds no checksums.</source>
        <translation>%1 enthält keine Prüfsummen.</translation>
    </message>
    <message>
        <source>%1 holds nothing that could be written anew.</source>
        <translation>%1 enthält nichts, was neu zu schreiben wäre.</translation>
    </message>
    <message>
        <source>%1 holds nothing that plays.</source>
        <translation>%1 enthält nichts Abspielbares.</translation>
    </message>
    <message>
        <source>%1 holds nothing to be heard.</source>
        <translation>%1 enthält nichts zu hören.</translation>
    </message>
    <message>
        <source>%1 holds the volume %2 (%3), which is catalogued already. Survey its other folders one by one.</source>
        <translation>%1 enthält den Datenträger %2 (%3), der schon erfasst ist. Erfassen Sie die anderen Ordner einzeln.</translation>
    </message>
    <message>
        <source>%1 holds the volume %2 (%3). Choose that, or a folder beside it.</source>
        <translation>%1 enthält den Datenträger %2 (%3). Wählen Sie ihn oder einen Ordner daneben.</translation>
    </message>
    <message>
        <source>%1 in the collection spell it like that.</source>
        <translation>%1 in der Sammlung schreiben es so.</translation>
    </message>
    <message>
        <source>%1 is a file. A survey reads folders and drives.</source>
        <translation>%1 ist eine Datei. Eine Erfassung liest Ordner und Laufwerke.</translation>
    </message>
    <message>
        <source>%1 is a file; a transfer leads to a folder.</source>
        <translation>%1 ist eine Datei; eine Übertragung führt in einen Ordner.</translation>
    </message>
    <message>
        <source>%1 is a link or a file.</source>
        <translation>%1 ist eine Verknüpfung oder eine Datei.</translation>
    </message>
    <message>
        <source>%1 is a recording of the collection.</source>
        <translation>%1 ist eine Aufnahme der Sammlung.</translation>
    </message>
    <message>
        <source>%1 is a trash: what lies there was thrown away, and is no collection.</source>
        <translation>%1 ist ein Papierkorb: was dort liegt, wurde weggeworfen und ist keine Sammlung.</translation>
    </message>
    <message>
        <source>%1 is about a source of another size.</source>
        <translation>%1 handelt von einer Quelle anderer Größe.</translation>
    </message>
    <message>
        <source>%1 is an archive within an archive, and was not looked into.</source>
        <translation>%1 ist ein Archiv in einem Archiv und wurde nicht angesehen.</translation>
    </message>
    <message>
        <source>%1 is an archive: those are never written to.</source>
        <translation>%1 ist ein Archiv: in solche wird nie geschrieben.</translation>
    </message>
    <message>
        <source>%1 is another file than was put there.</source>
        <translation>%1 ist eine andere Datei, als dort abgelegt wurde.</translation>
    </message>
    <message>
        <source>%1 is away.</source>
        <translation>%1 ist nicht da.</translation>
    </message>
    <message>
        <source>%1 is away. Connect it and run the transfer again; it goes on where it was.</source>
        <translation>%1 ist nicht da. Schließen Sie es an und starten Sie die Übertragung wieder; sie geht weiter, wo sie war.</translation>
    </message>
    <message>
        <source>%1 is away. Connect it first.</source>
        <translation>%1 ist nicht da. Schließen Sie es zuerst an.</translation>
    </message>
    <message>
        <source>%1 is away: %2 is the folder where it is mounted. Connect it first.</source>
        <translation>%1 ist nicht da: %2 ist der Ordner, in dem es eingehängt wird. Schließen Sie es zuerst an.</translation>
    </message>
    <message>
        <source>%1 is away: nothing can be done there now</source>
        <translation>%1 ist nicht da: dort lässt sich jetzt nichts tun</translation>
    </message>
    <message>
        <source>%1 is away; attach its volume first.</source>
        <translation>%1 ist nicht da; schließen Sie den Datenträger zuerst an.</translation>
    </message>
    <message>
        <source>%1 is away; nothing can be done there now.</source>
        <translation>%1 ist nicht da; dort lässt sich jetzt nichts tun.</translation>
    </message>
    <message>
        <source>%1 is being written by its player now.</source>
        <translation>%1 wird gerade von ihrem Abspieler geschrieben.</translation>
    </message>
    <message>
        <source>%1 is blank: it has no tracks.</source>
        <translation>%1 ist leer: es hat keine Titel.</translation>
    </message>
    <message>
        <source>%1 is catalogued there with holdings or a history of its own</source>
        <translation>%1 ist dort mit eigenen Dateien oder eigener Geschichte erfasst</translation>
    </message>
    <message>
        <source>%1 is empty.</source>
        <translation>%1 ist leer.</translation>
    </message>
    <message>
        <source>%1 is held%2: %3.</source>
        <translation>%1 wird festgehalten%2: %3.</translation>
    </message>
    <message>
        <source>%1 is in a folder that is called like the inside of an archive, and was not read. Rename the folder.</source>
        <translation>%1 ist in einem Ordner, der heißt wie das Innere eines Archivs, und wurde nicht gelesen. Benennen Sie den Ordner um.</translation>
    </message>
    <message>
        <source>%1 is in its archive twice; only the first is looked at.</source>
        <translation>%1 ist zweimal in ihrem Archiv; nur die erste wird angesehen.</translation>
    </message>
    <message>
        <source>%1 is locked by a password.</source>
        <translation>%1 ist durch ein Passwort verschlossen.</translation>
    </message>
    <message>
        <source>%1 is longer than its archive says.</source>
        <translation>%1 ist länger, als das Archiv sagt.</translation>
    </message>
    <message>
        <source>%1 is named like an archive, and cannot be opened as one.</source>
        <translation>%1 heißt wie ein Archiv und lässt sich nicht als solches öffnen.</translation>
    </message>
    <message>
        <source>%1 is neither an image nor a drive.</source>
        <translation>%1 ist weder ein Abbild noch ein Laufwerk.</translation>
    </message>
    <message>
        <source>%1 is no Debian package.</source>
        <translation>%1 ist kein Debian-Paket.</translation>
    </message>
    <message>
        <source>%1 is no arrival in an inbox.</source>
        <translation>%1 ist kein Neuzugang in einem Eingangsordner.</translation>
    </message>
    <message>
        <source>%1 is no bag: it has no bagit.txt.</source>
        <translation>%1 ist kein Bag: es hat keine bagit.txt.</translation>
    </message>
    <message>
        <source>%1 is no holding that is there and at hand.</source>
        <translation>%1 ist keine Datei, die da und zur Hand ist.</translation>
    </message>
    <message>
        <source>%1 is no inbox.</source>
        <translation>%1 ist kein Eingangsordner.</translation>
    </message>
    <message>
        <source>%1 is no list of a kind that is known.</source>
        <translation>%1 ist keine Liste einer bekannten Art.</translation>
    </message>
    <message>
        <source>%1 is no list: it holds bytes that no text has.</source>
        <translation>%1 ist keine Liste: sie enthält Bytes, die kein Text hat.</translation>
    </message>
    <message>
        <source>%1 is not a catalogue of Sober Archivist, or is damaged. It was left untouched.</source>
        <translation>%1 ist kein Katalog von Sober Archivist oder ist beschädigt. Er wurde nicht angerührt.</translation>
    </message>
    <message>
        <source>%1 is not a regular file.</source>
        <translation>%1 ist keine gewöhnliche Datei.</translation>
    </message>
    <message>
        <source>%1 is not as it was when it was proven. Prove the transfer again.</source>
        <translation>%1 ist nicht mehr, wie nachgewiesen. Weisen Sie die Übertragung neu nach.</translation>
    </message>
    <message>
        <source>%1 is not catalogued; run the transfer again.</source>
        <translation>%1 ist nicht erfasst; starten Sie die Übertragung wieder.</translation>
    </message>
    <message>
        <source>%1 is not in the catalogue.</source>
        <translation>%1 ist nicht im Katalog.</translation>
    </message>
    <message>
        <source>%1 is not on the drive that this was planned for. Connect that, or plan again.</source>
        <translation>%1 ist nicht auf dem Laufwerk, für das geplant wurde. Schließen Sie dieses an oder planen Sie neu.</translation>
    </message>
    <message>
        <source>%1 is not there any more.</source>
        <translation>%1 ist nicht mehr da.</translation>
    </message>
    <message>
        <source>%1 is not there any more; remove its map to begin anew.</source>
        <translation>%1 ist nicht mehr da; entfernen Sie die Karte dazu, um neu zu beginnen.</translation>
    </message>
    <message>
        <source>%1 is not there.</source>
        <translation>%1 ist nicht da.</translation>
    </message>
    <message>
        <source>%1 is not what is held at %2; it stays in the trash.</source>
        <translation>%1 ist nicht, was bei %2 vorhanden ist; es bleibt im Papierkorb.</translation>
    </message>
    <message>
        <source>%1 is not what it was when it was scanned; scan it again.</source>
        <translation>%1 ist nicht mehr, wie beim Durchsehen; sehen Sie es neu durch.</translation>
    </message>
    <message>
        <source>%1 is not what was compared any more; choose again.</source>
        <translation>%1 ist nicht mehr das Verglichene; wählen Sie neu.</translation>
    </message>
    <message>
        <source>%1 is not what was copied.</source>
        <translation>%1 ist nicht, was kopiert wurde.</translation>
    </message>
    <message>
        <source>%1 is not what was recorded; survey it again.</source>
        <translation>%1 ist nicht, was verzeichnet war; erfassen Sie es neu.</translation>
    </message>
    <message>
        <source>%1 is not what was recorded; verify its volume.</source>
        <translation>%1 ist nicht, was verzeichnet war; prüfen Sie den Datenträger.</translation>
    </message>
    <message>
        <source>%1 is not whole: what it was compressed to breaks off.</source>
        <translation>%1 ist nicht ganz: die gepackten Daten brechen ab.</translation>
    </message>
    <message>
        <source>%1 is of a kind whose tags cannot be read field by field.</source>
        <translation>%1 ist von einer Art, deren Tags sich nicht Feld für Feld lesen lassen.</translation>
    </message>
    <message>
        <source>%1 is of a kind whose tags cannot be written.</source>
        <translation>%1 ist von einer Art, deren Tags sich nicht schreiben lassen.</translation>
    </message>
    <message>
        <source>%1 is on no volume that is catalogued and at hand. Survey it first.</source>
        <translation>%1 ist auf keinem Datenträger, der erfasst und zur Hand ist. Erfassen Sie ihn zuerst.</translation>
    </message>
    <message>
        <source>%1 is on no volume: there is nothing to put in order there.</source>
        <translation>%1 ist auf keinem Datenträger: dort gibt es nichts zu ordnen.</translation>
    </message>
    <message>
        <source>%1 is one file with several names; written anew, the others would keep the old list.</source>
        <translation>%1 ist eine Datei mit mehreren Namen; neu geschrieben, behielten die anderen die alte Liste.</translation>
    </message>
    <message>
        <source>%1 is open for writing in its player now; close that first.</source>
        <translation>%1 ist im Abspieler gerade zum Schreiben offen; schließen Sie ihn zuerst.</translation>
    </message>
    <message>
        <source>%1 is read-only; it is left as it is.</source>
        <translation>%1 ist schreibgeschützt und bleibt, wie sie ist.</translation>
    </message>
    <message>
        <source>%1 is taken.</source>
        <translation>%1 ist vergeben.</translation>
    </message>
    <message>
        <source>%1 is the catalogue itself.</source>
        <translation>%1 ist der Katalog selbst.</translation>
    </message>
    <message>
        <source>%1 is the holding itself.</source>
        <translation>%1 ist die Datei selbst.</translation>
    </message>
    <message>
        <source>%1 is the same file by another way, no copy.</source>
        <translation>%1 ist dieselbe Datei auf anderem Weg, keine Kopie.</translation>
    </message>
    <message>
        <source>%1 is the volume %2 (%3) by another way, or a part of it: its files would count as copies of themselves. Survey that one.</source>
        <translation>%1 ist der Datenträger %2 (%3) auf anderem Weg oder ein Teil davon: seine Dateien zählten als Kopien ihrer selbst. Erfassen Sie ihn.</translation>
    </message>
    <message>
        <source>%1 is the volume %2 (%3) by another way. Name it there.</source>
        <translation>%1 ist der Datenträger %2 (%3) auf anderem Weg. Nennen Sie ihn dort.</translation>
    </message>
    <message>
        <source>%1 is there already: name another file.</source>
        <translation>%1 ist schon da: nennen Sie eine andere Datei.</translation>
    </message>
    <message>
        <source>%1 is there already; a bag is written to a new place.</source>
        <translation>%1 ist schon da; ein Bag wird an einen neuen Ort geschrieben.</translation>
    </message>
    <message>
        <source>%1 is there already; nothing was saved.</source>
        <translation>%1 ist schon da; nichts wurde gesichert.</translation>
    </message>
    <message>
        <source>%1 is there and holds no catalogue. Rename it, or choose another place.</source>
        <translation>%1 ist da und enthält keinen Katalog. Benennen Sie es um oder wählen Sie einen anderen Ort.</translation>
    </message>
    <message>
        <source>%1 is this catalogue itself.</source>
        <translation>%1 ist dieser Katalog selbst.</translation>
    </message>
    <message>
        <source>%1 is too large for what it should be.</source>
        <translation>%1 ist zu groß für das, was es sein soll.</translation>
    </message>
    <message>
        <source>%1 lies in a trash.</source>
        <translation>%1 liegt in einem Papierkorb.</translation>
    </message>
    <message>
        <source>%1 lies in an inbox itself.</source>
        <translation>%1 liegt selbst in einem Eingangsordner.</translation>
    </message>
    <message>
        <source>%1 lies in more parts than can be opened together.</source>
        <translation>%1 liegt in mehr Teilen, als sich zusammen öffnen lassen.</translation>
    </message>
    <message>
        <source>%1 lies in the trash: it was thrown away, and is no copy that stays.</source>
        <translation>%1 liegt im Papierkorb: es wurde weggeworfen und ist keine Kopie, die bleibt.</translation>
    </message>
    <message>
        <source>%1 lies on the volume %2, on which only a docket changes anything.</source>
        <translation>%1 liegt auf dem Datenträger %2, auf dem nur ein Laufzettel etwas ändert.</translation>
    </message>
    <message>
        <source>%1 lies within the volume %2 (%3), which is catalogued already. Survey that one.</source>
        <translation>%1 liegt auf dem Datenträger %2 (%3), der schon erfasst ist. Erfassen Sie ihn.</translation>
    </message>
    <message>
        <source>%1 min %2 s</source>
        <translation>%1 min %2 s</translation>
    </message>
    <message>
        <source>%1 missing</source>
        <translation>%1 fehlen</translation>
    </message>
    <message>
        <source>%1 needs %2 beside it while it is made anew; %3 are free.</source>
        <translation>%1 braucht %2 daneben, während es neu gemacht wird; frei sind %3.</translation>
    </message>
    <message>
        <source>%1 of a list: %2 as listed, %3 drifted, %4 missing, %5 not catalogued</source>
        <translation>%1 einer Liste: %2 wie aufgeführt, %3 abgewichen, %4 fehlen, %5 nicht erfasst</translation>
    </message>
    <message>
        <source>%1 of that artist are filed so.</source>
        <translation>%1 von diesem Künstler sind so eingeordnet.</translation>
    </message>
    <message>
        <source>%1 of transfer %2 to be copied; run it first.</source>
        <translation>Noch zu kopieren von Übertragung %2: %1; starten Sie sie zuerst.</translation>
    </message>
    <message>
        <source>%1 onto %2</source>
        <translation>%1 auf %2</translation>
    </message>
    <message>
        <source>%1 reads back otherwise than it was written, near byte %2: it does not keep what it is given.</source>
        <translation>%1 liest sich anders, als es geschrieben wurde, nahe Byte %2: es behält nicht, was man ihm gibt.</translation>
    </message>
    <message>
        <source>%1 reads back otherwise than it was written.</source>
        <translation>%1 liest sich anders, als es geschrieben wurde.</translation>
    </message>
    <message>
        <source>%1 reads back otherwise than it was written: its drive does not keep what it is given.</source>
        <translation>%1 liest sich anders, als es geschrieben wurde: das Laufwerk behält nicht, was man ihm gibt.</translation>
    </message>
    <message>
        <source>%1 s are too short to tell</source>
        <translation>%1 s sind zu kurz, um es zu sagen</translation>
    </message>
    <message>
        <source>%1 stands there already, and no map says what is in it.</source>
        <translation>%1 steht schon da, und keine Karte sagt, was darin ist.</translation>
    </message>
    <message>
        <source>%1 taken over.</source>
        <translation>%1 übernommen.</translation>
    </message>
    <message>
        <source>%1 that belong to no frame, from byte %2 on</source>
        <translation>%1, die zu keinem Frame gehören, ab Byte %2</translation>
    </message>
    <message>
        <source>%1 that belong to no page, from byte %2 on</source>
        <translation>%1, die zu keiner Seite gehören, ab Byte %2</translation>
    </message>
    <message>
        <source>%1 there by content</source>
        <translation>%1 dem Inhalt nach da</translation>
    </message>
    <message>
        <source>%1 to be fetched from a network, which is not done</source>
        <translation>%1 aus einem Netz zu holen, was nicht geschieht</translation>
    </message>
    <message>
        <source>%1 verified, %2 unchanged, %3 drifted, %4 missing, %5 unreadable%6</source>
        <translation>%1 geprüft, %2 unverändert, %3 abgewichen, %4 fehlen, %5 nicht lesbar%6</translation>
    </message>
    <message>
        <source>%1 waits to be settled: %2</source>
        <translation>%1 wartet auf Ordnung: %2</translation>
    </message>
    <message>
        <source>%1 waits to be settled: %2 is away.</source>
        <translation>%1 wartet auf Ordnung: %2 ist nicht da.</translation>
    </message>
    <message>
        <source>%1 waits to be settled: it could not be put back (%2)</source>
        <translation>%1 wartet auf Ordnung: es ließ sich nicht zurücklegen (%2)</translation>
    </message>
    <message>
        <source>%1 waits to be settled; the next work here does that.</source>
        <translation>%1 wartet auf Ordnung; die nächste Arbeit hier bringt es in Ordnung.</translation>
    </message>
    <message>
        <source>%1 was changed since this was planned; plan again to take that along.</source>
        <translation>%1 wurde seit der Planung geändert; planen Sie neu, um das mitzunehmen.</translation>
    </message>
    <message>
        <source>%1 was changed since this was planned; plan again.</source>
        <translation>%1 wurde seit der Planung geändert; planen Sie neu.</translation>
    </message>
    <message>
        <source>%1 was changed since we wrote it; it stays as it is.</source>
        <translation>%1 wurde geändert, seit wir es schrieben; es bleibt, wie es ist.</translation>
    </message>
    <message>
        <source>%1 was changed since, by its player or by a later entry of the ledger; it stays as it is.</source>
        <translation>%1 wurde seither geändert, von seinem Abspieler oder einem späteren Eintrag des Protokolls; es bleibt, wie es ist.</translation>
    </message>
    <message>
        <source>%1 was compressed as one stream, in which one cannot look back. Unpack it first.</source>
        <translation>%1 wurde in einem Zug gepackt, in dem sich nicht zurückblicken lässt. Entpacken Sie es zuerst.</translation>
    </message>
    <message>
        <source>%1 was let go of for good.</source>
        <translation>%1 wurde für immer freigegeben.</translation>
    </message>
    <message>
        <source>%1 was not copied.</source>
        <translation>%1 wurde nicht kopiert.</translation>
    </message>
    <message>
        <source>%1 was not examined: survey it at full effort first.</source>
        <translation>%1 wurde nicht untersucht: erfassen Sie es zuerst mit vollem Aufwand.</translation>
    </message>
    <message>
        <source>%1 was not looked through.</source>
        <translation>%1 wurde nicht durchgesehen.</translation>
    </message>
    <message>
        <source>%1 was to stay and is not there any more.</source>
        <translation>%1 sollte bleiben und ist nicht mehr da.</translation>
    </message>
    <message>
        <source>%1 was to stay and is not what was compared any more.</source>
        <translation>%1 sollte bleiben und ist nicht mehr das Verglichene.</translation>
    </message>
    <message>
        <source>%1 was written by a newer Sober Archivist.</source>
        <translation>%1 wurde von einem neueren Sober Archivist geschrieben.</translation>
    </message>
    <message>
        <source>%1 was written by a newer Sober Archivist; use that program.</source>
        <translation>%1 wurde von einem neueren Sober Archivist geschrieben; benutzen Sie dieses Programm.</translation>
    </message>
    <message>
        <source>%1 was written by its player meanwhile; it is left as it is.</source>
        <translation>%1 wurde inzwischen von ihrem Abspieler geschrieben und bleibt, wie sie ist.</translation>
    </message>
    <message>
        <source>%1 was written to while it was compared.</source>
        <translation>In %1 wurde während des Vergleichs geschrieben.</translation>
    </message>
    <message>
        <source>%1 was written to while it was looked into.</source>
        <translation>In %1 wurde während des Hineinsehens geschrieben.</translation>
    </message>
    <message>
        <source>%1 was written to while it was read.</source>
        <translation>In %1 wurde während des Lesens geschrieben.</translation>
    </message>
    <message>
        <source>%1 would not be read as the same list afterwards; it is left as it is.</source>
        <translation>%1 läse sich danach nicht als dieselbe Liste und bleibt, wie sie ist.</translation>
    </message>
    <message>
        <source>%1%2 to it%3</source>
        <translation>%1%2 dorthin%3</translation>
    </message>
    <message>
        <source>%1%2, looked at last %3: %4; %5 as here</source>
        <translation>%1%2, zuletzt angesehen %3: %4; wie hier: %5</translation>
    </message>
    <message>
        <source>%1(holding) %2</source>
        <translation>%1(Datei) %2</translation>
    </message>
    <message>
        <source>%1, and nobody consented to that.</source>
        <translation>%1, und niemand hat darin eingewilligt.</translation>
    </message>
    <message>
        <source>%1, as preferred</source>
        <translation>%1, wie gewünscht</translation>
    </message>
    <message>
        <source>%1, away since %2</source>
        <translation>%1, nicht da seit %2</translation>
    </message>
    <message>
        <source>%1, away%2</source>
        <translation>%1, nicht da%2</translation>
    </message>
    <message>
        <source>%1, in a folder whose drive is away</source>
        <translation>%1, in einem Ordner, dessen Laufwerk nicht da ist</translation>
    </message>
    <message>
        <source>%1, interrupted</source>
        <translation>%1, unterbrochen</translation>
    </message>
    <message>
        <source>%1, left out by its choices</source>
        <translation>%1, nach eigener Wahl ausgelassen</translation>
    </message>
    <message>
        <source>%1, lossless</source>
        <translation>%1, verlustfrei</translation>
    </message>
    <message>
        <source>%1, not known here: %2.</source>
        <translation>%1, hier nicht bekannt: %2.</translation>
    </message>
    <message>
        <source>%1, read again for the %2. time</source>
        <translation>%1, zum %2. Mal gelesen</translation>
    </message>
    <message>
        <source>%1, same samples</source>
        <translation>%1, gleiche Abtastwerte</translation>
    </message>
    <message>
        <source>%1, where excerpts are kept, is damaged. Delete it: a survey makes them again.</source>
        <translation>%1, wo Hörproben behalten werden, ist beschädigt. Löschen Sie es: eine Erfassung macht sie wieder.</translation>
    </message>
    <message>
        <source>%1: %2 seen, %3 added, %4 changed, %5 moved, %6 missing%7%8</source>
        <translation>%1: %2 gesehen, %3 neu, %4 geändert, %5 verschoben, %6 fehlen%7%8</translation>
    </message>
    <message>
        <source>%1: its drive has not confirmed that the bag is written; check it, or write it again.</source>
        <translation>%1: das Laufwerk hat nicht bestätigt, dass der Bag geschrieben ist; prüfen Sie ihn oder schreiben Sie ihn neu.</translation>
    </message>
    <message>
        <source>%1: its name is not UTF-8, and a bag could not list it.</source>
        <translation>%1: der Name ist nicht UTF-8, und ein Bag könnte ihn nicht aufführen.</translation>
    </message>
    <message>
        <source>%1: its tags could not be written.</source>
        <translation>%1: die Tags ließen sich nicht schreiben.</translation>
    </message>
    <message>
        <source>%1: something stands at its place again; survey the volume first.</source>
        <translation>%1: an seinem Platz steht wieder etwas; erfassen Sie zuerst den Datenträger.</translation>
    </message>
    <message>
        <source>%1: survey</source>
        <translation>%1: Erfassung</translation>
    </message>
    <message>
        <source>%1: the drive could not read %2 of it, from byte %3 on.</source>
        <translation>%1: das Laufwerk konnte %2 davon nicht lesen, ab Byte %3.</translation>
    </message>
    <message>
        <source>%1: what was mounted there is away; it is not missing.</source>
        <translation>%1: was dort eingehängt war, ist nicht da; es fehlt nicht.</translation>
    </message>
    <message>
        <source>%1: what was written is not what is read back.</source>
        <translation>%1: was geschrieben wurde, ist nicht, was zurückgelesen wird.</translation>
    </message>
    <message>
        <source>%1block grid of %2 encoder found at %3 of %4, %5 times above chance</source>
        <translation>%1Blockraster eines Encoders (%2) gefunden bei %3 von %4, %5-mal über dem Zufall</translation>
    </message>
    <message>
        <source>, &quot;ü&quot; as &quot;ue&quot; and the like</source>
        <translation>, „ü“ als „ue“ und dergleichen</translation>
    </message>
    <message>
        <source>, %1 could not be</source>
        <translation>, %1 nicht</translation>
    </message>
    <message>
        <source>, %1 left out by choice</source>
        <translation>, %1 nach Wahl ausgelassen</translation>
    </message>
    <message>
        <source>, %1 not confirmed by their drives</source>
        <translation>, %1 von ihren Laufwerken nicht bestätigt</translation>
    </message>
    <message>
        <source>, %1 refused</source>
        <translation>, %1 abgelehnt</translation>
    </message>
    <message>
        <source>, .%1 to .%2</source>
        <translation>, .%1 zu .%2</translation>
    </message>
    <message>
        <source>, all in one folder</source>
        <translation>, alle in einem Ordner</translation>
    </message>
    <message>
        <source>, and away</source>
        <translation>, und nicht da</translation>
    </message>
    <message>
        <source>, and will lead to what stays</source>
        <translation>, und wird zum Bleibenden führen</translation>
    </message>
    <message>
        <source>, damaged</source>
        <translation>, beschädigt</translation>
    </message>
    <message>
        <source>, in Latin letters</source>
        <translation>, in lateinischen Buchstaben</translation>
    </message>
    <message>
        <source>, in channel %1 alone</source>
        <translation>, nur in Kanal %1</translation>
    </message>
    <message>
        <source>, in the left channel alone</source>
        <translation>, nur im linken Kanal</translation>
    </message>
    <message>
        <source>, in the right channel alone</source>
        <translation>, nur im rechten Kanal</translation>
    </message>
    <message>
        <source>, last seen </source>
        <translation>, zuletzt gesehen </translation>
    </message>
    <message>
        <source>, only the spelling differs</source>
        <translation>, nur die Schreibweise ist anders</translation>
    </message>
    <message>
        <source>, sorted by performer and album</source>
        <translation>, nach Künstler und Album geordnet</translation>
    </message>
    <message>
        <source>, stopped before its end</source>
        <translation>, vor dem Ende angehalten</translation>
    </message>
    <message>
        <source>, stopped before the end</source>
        <translation>, vor dem Ende angehalten</translation>
    </message>
    <message>
        <source>, the</source>
        <translation>, the</translation>
    </message>
    <message>
        <source>, was %1%2 before</source>
        <translation>, war vorher %1%2</translation>
    </message>
    <message>
        <source>: its kind of tags cannot take this without changing others; it stays as it is.</source>
        <translation>: Tags dieser Art können das nicht aufnehmen, ohne dass sich andere ändern; sie bleibt, wie sie ist.</translation>
    </message>
    <message>
        <source>: with the new tags its audio data would not be the same; it stays as it is.</source>
        <translation>: mit den neuen Tags wären die Audiodaten nicht dieselben; sie bleibt, wie sie ist.</translation>
    </message>
    <message>
        <source>: without the bytes that seem to be junk its audio data would not be the same; it stays as it is.</source>
        <translation>: ohne die Bytes, die Fremdes zu sein scheinen, wären die Audiodaten nicht dieselben; sie bleibt, wie sie ist.</translation>
    </message>
    <message>
        <source>; %1 as %2</source>
        <translation>; %1 als %2</translation>
    </message>
    <message>
        <source>; %1 examined only there</source>
        <translation>; %1 nur dort untersucht</translation>
    </message>
    <message>
        <source>; %1 known here no longer there</source>
        <translation>; %1 von hier nicht mehr dort</translation>
    </message>
    <message>
        <source>; from %1</source>
        <translation>; aus %1</translation>
    </message>
    <message>
        <source>; last surveyed </source>
        <translation>; zuletzt erfasst </translation>
    </message>
    <message>
        <source>; of copies only the keepers</source>
        <translation>; von Kopien nur die bleibenden</translation>
    </message>
    <message>
        <source>A catalogue needs the name of a file.</source>
        <translation>Ein Katalog braucht den Namen einer Datei.</translation>
    </message>
    <message>
        <source>A docket has retired it: undo entry %1 of the ledger.</source>
        <translation>Ein Laufzettel hat sie ausgesondert: nehmen Sie Eintrag %1 des Protokolls zurück.</translation>
    </message>
    <message>
        <source>A holding left the catalogue meanwhile.</source>
        <translation>Eine Datei hat inzwischen den Katalog verlassen.</translation>
    </message>
    <message>
        <source>A list needs a name.</source>
        <translation>Eine Liste braucht einen Namen.</translation>
    </message>
    <message>
        <source>A list of the latest arrivals ends in .m3u8, .xspf or .pls.</source>
        <translation>Eine Liste der neuesten Zugänge endet auf .m3u8, .xspf oder .pls.</translation>
    </message>
    <message>
        <source>A list that leads there is not known any more; read the players again.</source>
        <translation>Eine Liste, die dorthin führt, ist nicht mehr bekannt; lesen Sie die Abspieler neu.</translation>
    </message>
    <message>
        <source>A password in an address would be kept as text; leave it out.</source>
        <translation>Ein Passwort in einer Adresse würde als Text behalten; lassen Sie es weg.</translation>
    </message>
    <message>
        <source>A picture lies beside it, and the file carries none.</source>
        <translation>Ein Bild liegt daneben, und die Datei enthält keines.</translation>
    </message>
    <message>
        <source>A player needs a list, or a folder that holds some.</source>
        <translation>Ein Abspieler braucht eine Liste oder einen Ordner, der welche enthält.</translation>
    </message>
    <message>
        <source>A policy needs a name.</source>
        <translation>Eine Richtlinie braucht einen Namen.</translation>
    </message>
    <message>
        <source>A volume needs a label: one line of text.</source>
        <translation>Ein Datenträger braucht einen Namen: eine Zeile Text.</translation>
    </message>
    <message>
        <source>APE tag</source>
        <translation>APE-Tag</translation>
    </message>
    <message>
        <source>All %1 copies at hand are told to retire; one of them has to stay.</source>
        <translation>Alle %1 Kopien zur Hand sollen ausgesondert werden; eine davon muss bleiben.</translation>
    </message>
    <message>
        <source>All that is on %1 would be lost. Its label is &quot;%2&quot; and its size %3 bytes; type both to say that it is the right one.</source>
        <translation>Alles auf %1 ginge verloren. Sein Name ist „%2“ und seine Größe %3 Bytes; tippen Sie beides, um zu sagen, dass es das richtige ist.</translation>
    </message>
    <message>
        <source>An earlier action on it waits to be settled; see the ledger.</source>
        <translation>Eine frühere Maßnahme daran wartet auf Ordnung; siehe das Protokoll.</translation>
    </message>
    <message>
        <source>An earlier change of the list %1 waits to be settled.</source>
        <translation>Eine frühere Änderung der Liste %1 wartet auf Ordnung.</translation>
    </message>
    <message>
        <source>Another volume is called %1 already.</source>
        <translation>Ein anderer Datenträger heißt schon %1.</translation>
    </message>
    <message>
        <source>Block %1 could not be read sound from any copy any more.</source>
        <translation>Block %1 ließ sich aus keiner Kopie mehr heil lesen.</translation>
    </message>
    <message>
        <source>Carry them out or take them off first.</source>
        <translation>Führen Sie sie zuerst aus oder nehmen Sie sie herunter.</translation>
    </message>
    <message>
        <source>Consented: %1.</source>
        <translation>Eingewilligt: %1.</translation>
    </message>
    <message>
        <source>Could not %1 %2: %3.</source>
        <translation>Misslungen: %1 %2: %3.</translation>
    </message>
    <message>
        <source>Could not read %1.</source>
        <translation>%1 ließ sich nicht lesen.</translation>
    </message>
    <message>
        <source>Decided there: %1, %2, %3.</source>
        <translation>Dort entschieden: %1, %2, %3.</translation>
    </message>
    <message>
        <source>Did not write all of %1: %2</source>
        <translation>%1 wurde nicht ganz geschrieben: %2</translation>
    </message>
    <message>
        <source>Disc %1</source>
        <translation>Disc %1</translation>
    </message>
    <message>
        <source>Entry %1 of the ledger has set it aside: what can be undone rests on it.</source>
        <translation>Eintrag %1 des Protokolls hat es beiseitegelegt: darauf ruht, was sich zurücknehmen lässt.</translation>
    </message>
    <message>
        <source>Entry %1 of the ledger is nothing that can be taken back.</source>
        <translation>Eintrag %1 des Protokolls ist nichts, was sich zurücknehmen ließe.</translation>
    </message>
    <message>
        <source>Entry %1 was taken back already.</source>
        <translation>Eintrag %1 wurde schon zurückgenommen.</translation>
    </message>
    <message>
        <source>Hidden before the first</source>
        <translation>Verborgen vor dem ersten</translation>
    </message>
    <message>
        <source>ID3v1 tag</source>
        <translation>ID3v1-Tag</translation>
    </message>
    <message>
        <source>ID3v2 tag</source>
        <translation>ID3v2-Tag</translation>
    </message>
    <message>
        <source>If it goes, %1: %2 stays. Consent to that loss first.</source>
        <translation>Wenn sie geht, %1: %2 bleibt. Willigen Sie zuerst in diesen Verlust ein.</translation>
    </message>
    <message>
        <source>It could not be examined: %1.</source>
        <translation>Sie ließ sich nicht untersuchen: %1.</translation>
    </message>
    <message>
        <source>It has no manifest of its payload.</source>
        <translation>Es hat kein Verzeichnis seines Inhalts.</translation>
    </message>
    <message>
        <source>It has spaces or characters that cannot be seen.</source>
        <translation>Es hat Leerzeichen oder Zeichen, die man nicht sieht.</translation>
    </message>
    <message>
        <source>It holds nothing beside its audio and its tags that could be left out.</source>
        <translation>Sie enthält neben Ton und Tags nichts, was sich weglassen ließe.</translation>
    </message>
    <message>
        <source>It holds one year.</source>
        <translation>Es enthält ein Jahr.</translation>
    </message>
    <message>
        <source>It is a number.</source>
        <translation>Es ist eine Zahl.</translation>
    </message>
    <message>
        <source>It is better than %1: %2.</source>
        <translation>Sie ist besser als %1: %2.</translation>
    </message>
    <message>
        <source>It is damaged: %1.</source>
        <translation>Sie ist beschädigt: %1.</translation>
    </message>
    <message>
        <source>It is held already at %1.</source>
        <translation>Sie ist schon vorhanden bei %1.</translation>
    </message>
    <message>
        <source>It is no map of an image: %1.</source>
        <translation>Es ist keine Karte eines Abbilds: %1.</translation>
    </message>
    <message>
        <source>It is not in the trash any more.</source>
        <translation>Es ist nicht mehr im Papierkorb.</translation>
    </message>
    <message>
        <source>It is not missing any more.</source>
        <translation>Sie fehlt nicht mehr.</translation>
    </message>
    <message>
        <source>It is not there any more.</source>
        <translation>Sie ist nicht mehr da.</translation>
    </message>
    <message>
        <source>It is not what it says: %1.</source>
        <translation>Sie ist nicht, was sie angibt: %1.</translation>
    </message>
    <message>
        <source>It is not whole, or not the same bytes; its place is kept for what is.</source>
        <translation>Es ist nicht ganz oder nicht dieselben Bytes; sein Platz wird für das Richtige frei gehalten.</translation>
    </message>
    <message>
        <source>It is one file with several names; the others would keep the damage.</source>
        <translation>Sie ist eine Datei mit mehreren Namen; die anderen behielten den Schaden.</translation>
    </message>
    <message>
        <source>It is one file with several names; the others would keep the old one.</source>
        <translation>Sie ist eine Datei mit mehreren Namen; die anderen behielten die alte.</translation>
    </message>
    <message>
        <source>It is one file with several names; the others would keep the old tags.</source>
        <translation>Sie ist eine Datei mit mehreren Namen; die anderen behielten die alten Tags.</translation>
    </message>
    <message>
        <source>It is one file with several names; the others would stay as they are.</source>
        <translation>Sie ist eine Datei mit mehreren Namen; die anderen blieben, wie sie sind.</translation>
    </message>
    <message>
        <source>It is reached by a link; it is %1. Decide on it there.</source>
        <translation>Sie wird über eine Verknüpfung erreicht; sie ist %1. Entscheiden Sie dort über sie.</translation>
    </message>
    <message>
        <source>It is still arriving.</source>
        <translation>Sie kommt noch an.</translation>
    </message>
    <message>
        <source>It is the only copy at hand.</source>
        <translation>Sie ist die einzige Kopie zur Hand.</translation>
    </message>
    <message>
        <source>It is what was recorded: nothing to accept.</source>
        <translation>Sie ist, was verzeichnet war: nichts anzunehmen.</translation>
    </message>
    <message>
        <source>It is what was recorded: there is nothing to mend.</source>
        <translation>Sie ist, was verzeichnet war: nichts zu heilen.</translation>
    </message>
    <message>
        <source>It lies inside %1, and archives are never written to. Copy it out first.</source>
        <translation>Sie liegt in %1, und in Archive wird nie geschrieben. Kopieren Sie sie zuerst heraus.</translation>
    </message>
    <message>
        <source>It names a site.</source>
        <translation>Es nennt eine Website.</translation>
    </message>
    <message>
        <source>It stands on the docket to be retired: take it off first.</source>
        <translation>Sie steht zum Aussondern auf dem Laufzettel: nehmen Sie sie zuerst herunter.</translation>
    </message>
    <message>
        <source>It was accepted before: %1.</source>
        <translation>Sie wurde schon angenommen: %1.</translation>
    </message>
    <message>
        <source>It was not examined yet: survey its volume at full effort first.</source>
        <translation>Sie wurde noch nicht untersucht: erfassen Sie ihren Datenträger zuerst mit vollem Aufwand.</translation>
    </message>
    <message>
        <source>It was not examined yet; let the scan go on.</source>
        <translation>Es wurde noch nicht untersucht; lassen Sie das Durchsehen weitergehen.</translation>
    </message>
    <message>
        <source>It was not examined: survey it at full effort first.</source>
        <translation>Sie wurde nicht untersucht: erfassen Sie sie zuerst mit vollem Aufwand.</translation>
    </message>
    <message>
        <source>It was retired, and nobody waits for it. Say where to put it.</source>
        <translation>Sie wurde ausgesondert, und niemand wartet darauf. Sagen Sie, wohin sie soll.</translation>
    </message>
    <message>
        <source>It was stopped; the catalogue is as it was.</source>
        <translation>Es wurde angehalten; der Katalog ist, wie er war.</translation>
    </message>
    <message>
        <source>It was to have %1 and has %2.</source>
        <translation>Erwartet war %1, da ist %2.</translation>
    </message>
    <message>
        <source>It was written in one encoding and read in another.</source>
        <translation>Es wurde in einer Kodierung geschrieben und in einer anderen gelesen.</translation>
    </message>
    <message>
        <source>It would be written onto the drive that it is taken from; choose another.</source>
        <translation>Es würde auf das Laufwerk geschrieben, von dem es kommt; wählen Sie ein anderes.</translation>
    </message>
    <message>
        <source>It would leave its file system; what is moved stays on it.</source>
        <translation>Sie würde ihr Dateisystem verlassen; was verschoben wird, bleibt darauf.</translation>
    </message>
    <message>
        <source>Its volume is not in the catalogue.</source>
        <translation>Ihr Datenträger ist nicht im Katalog.</translation>
    </message>
    <message>
        <source>Line %1 %2.</source>
        <translation>Zeile %1 %2.</translation>
    </message>
    <message>
        <source>MP3 of a variable rate, the highest</source>
        <translation>MP3 mit veränderlicher Rate, die höchste</translation>
    </message>
    <message>
        <source>MP3 of one rate, for old players</source>
        <translation>MP3 mit fester Rate, für alte Abspieler</translation>
    </message>
    <message>
        <source>No %1 can be asked: libcurl is not installed.</source>
        <translation>%1 kann nicht gefragt werden: libcurl ist nicht eingerichtet.</translation>
    </message>
    <message>
        <source>No archive is open.</source>
        <translation>Kein Archiv ist offen.</translation>
    </message>
    <message>
        <source>No copy that stays could be confirmed: %1</source>
        <translation>Keine Kopie, die bleibt, ließ sich bestätigen: %1</translation>
    </message>
    <message>
        <source>No copy that stays could take its references over.</source>
        <translation>Keine Kopie, die bleibt, könnte ihre Verweise übernehmen.</translation>
    </message>
    <message>
        <source>No copy that stays is at hand; it stays.</source>
        <translation>Keine Kopie, die bleibt, ist zur Hand; sie bleibt.</translation>
    </message>
    <message>
        <source>No file was handed over.</source>
        <translation>Keine Datei wurde übergeben.</translation>
    </message>
    <message>
        <source>No healthy copy of what was recorded is at hand.</source>
        <translation>Keine gesunde Kopie des Verzeichneten ist zur Hand.</translation>
    </message>
    <message>
        <source>No holding at hand has its bytes any more.</source>
        <translation>Keine Datei zur Hand hat ihre Bytes noch.</translation>
    </message>
    <message>
        <source>No list of a player points at %1.</source>
        <translation>Keine Liste eines Abspielers zeigt auf %1.</translation>
    </message>
    <message>
        <source>No offer shelf was set up, and no other service is asked.</source>
        <translation>Kein Angebotsregal wurde eingerichtet, und kein anderer Dienst wird gefragt.</translation>
    </message>
    <message>
        <source>No process could be started to look into %1.</source>
        <translation>Kein Vorgang ließ sich starten, um in %1 hineinzusehen.</translation>
    </message>
    <message>
        <source>No process could be started to read %1.</source>
        <translation>Kein Vorgang ließ sich starten, um %1 zu lesen.</translation>
    </message>
    <message>
        <source>Nobody knows its place. Say where to put it.</source>
        <translation>Niemand kennt ihren Ort. Sagen Sie, wohin sie soll.</translation>
    </message>
    <message>
        <source>Not taken over: %1.</source>
        <translation>Nicht übernommen: %1.</translation>
    </message>
    <message>
        <source>Nothing in %1 is in the catalogue.</source>
        <translation>Nichts in %1 ist im Katalog.</translation>
    </message>
    <message>
        <source>Nothing is chosen to come along.</source>
        <translation>Es ist nichts gewählt, was mitkommen soll.</translation>
    </message>
    <message>
        <source>Nothing is lost by that: there is nothing to consent to.</source>
        <translation>Dadurch geht nichts verloren: es gibt nichts, worin einzuwilligen wäre.</translation>
    </message>
    <message>
        <source>Nothing of entry %1 was carried out.</source>
        <translation>Von Eintrag %1 wurde nichts ausgeführt.</translation>
    </message>
    <message>
        <source>Nothing of these is there to be moved into %1.</source>
        <translation>Davon ist nichts da, was nach %1 zu verschieben wäre.</translation>
    </message>
    <message>
        <source>Nothing of this recording is held.</source>
        <translation>Von dieser Aufnahme ist nichts vorhanden.</translation>
    </message>
    <message>
        <source>Nothing of this set is advised to go.</source>
        <translation>Aus diesem Satz ist nichts auszusondern geraten.</translation>
    </message>
    <message>
        <source>Nothing was chosen to be taken over.</source>
        <translation>Es wurde nichts zum Übernehmen gewählt.</translation>
    </message>
    <message>
        <source>Ogg Vorbis of a variable rate</source>
        <translation>Ogg Vorbis mit veränderlicher Rate</translation>
    </message>
    <message>
        <source>Opus, for speech and for little room</source>
        <translation>Opus, für Sprache und für wenig Platz</translation>
    </message>
    <message>
        <source>Run them to their end or forget them first.</source>
        <translation>Führen Sie sie zu Ende oder vergessen Sie sie zuerst.</translation>
    </message>
    <message>
        <source>Saving the catalogue was stopped; nothing was kept of it.</source>
        <translation>Das Sichern des Katalogs wurde angehalten; nichts davon blieb.</translation>
    </message>
    <message>
        <source>Say in which form, as flac.</source>
        <translation>Sagen Sie, in welcher Form, etwa flac.</translation>
    </message>
    <message>
        <source>Sober Archivist</source>
        <translation>Sober Archivist</translation>
    </message>
    <message>
        <source>Some of what was found there stands on the docket.</source>
        <translation>Manches dort Gefundene steht auf dem Laufzettel.</translation>
    </message>
    <message>
        <source>Something stands at its place again; survey the volume first.</source>
        <translation>An ihrem Platz steht wieder etwas; erfassen Sie zuerst den Datenträger.</translation>
    </message>
    <message>
        <source>Stopped before %1 was copied.</source>
        <translation>Angehalten, bevor %1 kopiert war.</translation>
    </message>
    <message>
        <source>Stopped before %1 was read.</source>
        <translation>Angehalten, bevor %1 gelesen war.</translation>
    </message>
    <message>
        <source>Stopped before all arrivals were looked at.</source>
        <translation>Angehalten, bevor alle Neuzugänge angesehen waren.</translation>
    </message>
    <message>
        <source>Stopped before all inboxes were looked at.</source>
        <translation>Angehalten, bevor alle Eingangsordner angesehen waren.</translation>
    </message>
    <message>
        <source>Stopped before all of the trash was looked at.</source>
        <translation>Angehalten, bevor der ganze Papierkorb angesehen war.</translation>
    </message>
    <message>
        <source>Stopped before all tags were read.</source>
        <translation>Angehalten, bevor alle Tags gelesen waren.</translation>
    </message>
    <message>
        <source>Stopped before all that comes along was known.</source>
        <translation>Angehalten, bevor alles bekannt war, was mitkommt.</translation>
    </message>
    <message>
        <source>Stopped before all that is wanted was looked at.</source>
        <translation>Angehalten, bevor alles Gewünschte angesehen war.</translation>
    </message>
    <message>
        <source>Stopped before all was looked through.</source>
        <translation>Angehalten, bevor alles durchgesehen war.</translation>
    </message>
    <message>
        <source>Stopped before anything was copied.</source>
        <translation>Angehalten, bevor etwas kopiert war.</translation>
    </message>
    <message>
        <source>Stopped before the plan was made.</source>
        <translation>Angehalten, bevor der Plan gemacht war.</translation>
    </message>
    <message>
        <source>Stopped before this list was changed.</source>
        <translation>Angehalten, bevor diese Liste geändert war.</translation>
    </message>
    <message>
        <source>Stopped while %1 %2 of %3; what is on %4 now is no whole image.</source>
        <translation>Angehalten (%1 %2 von %3); was jetzt auf %4 ist, ist kein ganzes Abbild.</translation>
    </message>
    <message>
        <source>Stopped while %1 was examined.</source>
        <translation>Angehalten, während %1 untersucht wurde.</translation>
    </message>
    <message>
        <source>Stopped while %1 was looked for.</source>
        <translation>Angehalten, während %1 gesucht wurde.</translation>
    </message>
    <message>
        <source>Stopped while %1 was looked into.</source>
        <translation>Angehalten, während in %1 hineingesehen wurde.</translation>
    </message>
    <message>
        <source>Stopped while %1 was read.</source>
        <translation>Angehalten, während %1 gelesen wurde.</translation>
    </message>
    <message>
        <source>Stopped while comparing.</source>
        <translation>Beim Vergleichen angehalten.</translation>
    </message>
    <message>
        <source>Stopped while decoding.</source>
        <translation>Beim Dekodieren angehalten.</translation>
    </message>
    <message>
        <source>Stopped while the %1 was asked.</source>
        <translation>Angehalten, während %1 gefragt wurde.</translation>
    </message>
    <message>
        <source>Stopped while the disc was read.</source>
        <translation>Angehalten, während die Disc gelesen wurde.</translation>
    </message>
    <message>
        <source>Stopped; nothing was put on the docket.</source>
        <translation>Angehalten; nichts kam auf den Laufzettel.</translation>
    </message>
    <message>
        <source>Stopped; what was read of the disc is kept.</source>
        <translation>Angehalten; was von der Disc gelesen wurde, bleibt.</translation>
    </message>
    <message>
        <source>That holding is no member of the set any more.</source>
        <translation>Diese Datei gehört nicht mehr zu dem Satz.</translation>
    </message>
    <message>
        <source>That holding is not known any more.</source>
        <translation>Diese Datei ist nicht mehr bekannt.</translation>
    </message>
    <message>
        <source>The %1 %2 %3</source>
        <translation>%1 %2 %3</translation>
    </message>
    <message>
        <source>The %1 %2 answers with more than any answer takes.</source>
        <translation>%1 %2 antwortet mit mehr, als eine Antwort braucht.</translation>
    </message>
    <message>
        <source>The album has %1 and names none of its own.</source>
        <translation>Das Album hat %1 und nennt selbst keinen.</translation>
    </message>
    <message>
        <source>The catalogue %1 cannot be opened or made there.</source>
        <translation>Der Katalog %1 lässt sich dort nicht öffnen oder anlegen.</translation>
    </message>
    <message>
        <source>The catalogue %1 could not be read or written: its disk refused. What was recorded before stays.</source>
        <translation>Der Katalog %1 ließ sich nicht lesen oder schreiben: die Platte verweigerte es. Was vorher verzeichnet war, bleibt.</translation>
    </message>
    <message>
        <source>The catalogue %1 could not be written: no space is left on its disk. What was recorded before stays.</source>
        <translation>Der Katalog %1 ließ sich nicht schreiben: auf seiner Platte ist kein Platz mehr. Was vorher verzeichnet war, bleibt.</translation>
    </message>
    <message>
        <source>The catalogue %1 could not do what was asked (%2).</source>
        <translation>Der Katalog %1 konnte das Verlangte nicht tun (%2).</translation>
    </message>
    <message>
        <source>The catalogue %1 is damaged. It was left as it is; put back a copy of it or begin a new one.</source>
        <translation>Der Katalog %1 ist beschädigt. Er blieb, wie er war; legen Sie eine Kopie zurück oder beginnen Sie einen neuen.</translation>
    </message>
    <message>
        <source>The catalogue %1 is in use by another program.</source>
        <translation>Der Katalog %1 wird von einem anderen Programm benutzt.</translation>
    </message>
    <message>
        <source>The catalogue %1 is open in another Sober Archivist. Close that one first.</source>
        <translation>Der Katalog %1 ist in einem anderen Sober Archivist offen. Schließen Sie diesen zuerst.</translation>
    </message>
    <message>
        <source>The catalogue %1 may not be written to.</source>
        <translation>In den Katalog %1 darf nicht geschrieben werden.</translation>
    </message>
    <message>
        <source>The catalogue %1 was written by a newer Sober Archivist. It was left untouched; use that program.</source>
        <translation>Der Katalog %1 wurde von einem neueren Sober Archivist geschrieben. Er blieb unberührt; benutzen Sie dieses Programm.</translation>
    </message>
    <message>
        <source>The catalogue %1 was written by an older Sober Archivist and may not be written to here; open it once where it may.</source>
        <translation>Der Katalog %1 wurde von einem älteren Sober Archivist geschrieben und darf hier nicht beschrieben werden; öffnen Sie ihn einmal, wo er es darf.</translation>
    </message>
    <message>
        <source>The catalogue in %1 knows what this one does not. Take it in first (Collection, Take another catalogue in…) or give its folder another name, then carry this one along again.</source>
        <translation>Der Katalog in %1 weiß, was dieser nicht weiß. Nehmen Sie ihn zuerst auf (Sammlung, Anderen Katalog aufnehmen…) oder geben Sie seinem Ordner einen anderen Namen, dann nehmen Sie diesen wieder mit.</translation>
    </message>
    <message>
        <source>The catalogue was saved as %1, but it is not known whether its folder reached the medium: %2</source>
        <translation>Der Katalog wurde als %1 gesichert, aber ob sein Ordner das Medium erreicht hat, ist nicht bekannt: %2</translation>
    </message>
    <message>
        <source>The change of the list %1 waits to be settled: %2</source>
        <translation>Die Änderung der Liste %1 wartet auf Ordnung: %2</translation>
    </message>
    <message>
        <source>The change of the list %1 waits to be settled: it cannot be looked at now.</source>
        <translation>Die Änderung der Liste %1 wartet auf Ordnung: sie lässt sich jetzt nicht ansehen.</translation>
    </message>
    <message>
        <source>The change of the list %1 waits to be settled: what its player wrote could not be put back.</source>
        <translation>Die Änderung der Liste %1 wartet auf Ordnung: was ihr Abspieler schrieb, ließ sich nicht zurücklegen.</translation>
    </message>
    <message>
        <source>The copies at hand do not hold every block sound.</source>
        <translation>Die Kopien zur Hand haben nicht jeden Block heil.</translation>
    </message>
    <message>
        <source>The file is called %1.</source>
        <translation>Die Datei heißt %1.</translation>
    </message>
    <message>
        <source>The image could not be opened.</source>
        <translation>Das Abbild ließ sich nicht öffnen.</translation>
    </message>
    <message>
        <source>The image lies on what it would be written over.</source>
        <translation>Das Abbild liegt auf dem, was es überschreiben würde.</translation>
    </message>
    <message>
        <source>The image would be its own source.</source>
        <translation>Das Abbild wäre seine eigene Quelle.</translation>
    </message>
    <message>
        <source>The image would be written onto the drive that it is made of.</source>
        <translation>Das Abbild würde auf das Laufwerk geschrieben, von dem es gemacht wird.</translation>
    </message>
    <message>
        <source>The layout is wrong at character %1: %2</source>
        <translation>Die Ordnung ist beim Zeichen %1 falsch: %2</translation>
    </message>
    <message>
        <source>The ledger does not hold what the list was.</source>
        <translation>Das Protokoll enthält nicht, was die Liste war.</translation>
    </message>
    <message>
        <source>The list %1 leads there and is away now; connect its volume first.</source>
        <translation>Die Liste %1 führt dorthin und ist jetzt nicht da; schließen Sie zuerst ihren Datenträger an.</translation>
    </message>
    <message>
        <source>The list %1 leads there by an entry that cannot be looked at now. Look to its drive, then try again.</source>
        <translation>Die Liste %1 führt über einen Eintrag dorthin, der sich jetzt nicht ansehen lässt. Sehen Sie nach dem Laufwerk und versuchen Sie es noch einmal.</translation>
    </message>
    <message>
        <source>The lookup answers what is no answer.</source>
        <translation>Der Nachschlagedienst antwortet, was keine Antwort ist.</translation>
    </message>
    <message>
        <source>The next work on it does that.</source>
        <translation>Die nächste Arbeit daran bringt es in Ordnung.</translation>
    </message>
    <message>
        <source>The offer shelf sends more than it promised.</source>
        <translation>Das Angebotsregal sendet mehr, als es versprach.</translation>
    </message>
    <message>
        <source>The offer shelf sent %1 of the %2 that it promised.</source>
        <translation>Das Angebotsregal sandte %1 von den versprochenen %2.</translation>
    </message>
    <message>
        <source>The picture cannot be shown: it is of no kind that we know.</source>
        <translation>Das Bild lässt sich nicht zeigen: es ist von keiner bekannten Art.</translation>
    </message>
    <message>
        <source>The picture in it has %1; fitted into 1,200 pixels it has %2.</source>
        <translation>Das Bild darin hat %1; auf 1.200 Bildpunkte gebracht hat es %2.</translation>
    </message>
    <message>
        <source>The question to the catalogue was withdrawn.</source>
        <translation>Die Frage an den Katalog wurde zurückgezogen.</translation>
    </message>
    <message>
        <source>The question was not understood.</source>
        <translation>Die Frage wurde nicht verstanden.</translation>
    </message>
    <message>
        <source>The rip register answers what is no answer.</source>
        <translation>Das Leseregister antwortet, was keine Antwort ist.</translation>
    </message>
    <message>
        <source>The search was given up.</source>
        <translation>Die Suche wurde aufgegeben.</translation>
    </message>
    <message>
        <source>The table of contents of %1 contradicts itself: %2.</source>
        <translation>Das Inhaltsverzeichnis von %1 widerspricht sich: %2.</translation>
    </message>
    <message>
        <source>The trash cannot be looked at now.</source>
        <translation>Der Papierkorb lässt sich jetzt nicht ansehen.</translation>
    </message>
    <message>
        <source>The volume %1 vanished while it was read. Nothing was taken for missing.</source>
        <translation>Der Datenträger %1 verschwand beim Lesen. Nichts wurde als fehlend genommen.</translation>
    </message>
    <message>
        <source>The volume %1 vanished while it was read. What was read is kept; nothing was taken for missing.</source>
        <translation>Der Datenträger %1 verschwand beim Lesen. Was gelesen wurde, bleibt; nichts wurde als fehlend genommen.</translation>
    </message>
    <message>
        <source>The volume of its place is away.</source>
        <translation>Der Datenträger ihres Orts ist nicht da.</translation>
    </message>
    <message>
        <source>There are no rules &quot;%1&quot; for names.</source>
        <translation>Es gibt keine Regeln „%1“ für Namen.</translation>
    </message>
    <message>
        <source>There is no %1.</source>
        <translation>Es gibt kein %1.</translation>
    </message>
    <message>
        <source>There is no answer %1: there are %2.</source>
        <translation>Es gibt keine Antwort %1: es gibt %2.</translation>
    </message>
    <message>
        <source>There is no catalogue at %1 yet. Survey a folder first.</source>
        <translation>Bei %1 gibt es noch keinen Katalog. Erfassen Sie zuerst einen Ordner.</translation>
    </message>
    <message>
        <source>There is no change.</source>
        <translation>Es gibt keine Änderung.</translation>
    </message>
    <message>
        <source>There is no find of that number.</source>
        <translation>Es gibt kein Fundstück mit dieser Nummer.</translation>
    </message>
    <message>
        <source>There is no folder %1.</source>
        <translation>Es gibt keinen Ordner %1.</translation>
    </message>
    <message>
        <source>There is no transfer %1. &quot;sober transfer list&quot; names them.</source>
        <translation>Es gibt keine Übertragung %1. „sober transfer list“ nennt sie.</translation>
    </message>
    <message>
        <source>There is no trash to retire into: %1 The file stays where it is.</source>
        <translation>Es gibt keinen Papierkorb, in den auszusondern wäre: %1 Die Datei bleibt, wo sie ist.</translation>
    </message>
    <message>
        <source>There is nothing to look for.</source>
        <translation>Es ist nichts angegeben, was zu suchen wäre.</translation>
    </message>
    <message>
        <source>These sectors cannot be read with care.</source>
        <translation>Diese Sektoren lassen sich nicht mit Sorgfalt lesen.</translation>
    </message>
    <message>
        <source>This catalogue is the one that is carried along there.</source>
        <translation>Dieser Katalog ist derjenige, der dort mitgenommen ist.</translation>
    </message>
    <message>
        <source>This was planned for a device that is not here, as it was described. Connect it and plan again.</source>
        <translation>Das wurde für ein Gerät geplant, das nicht hier ist, wie es beschrieben war. Schließen Sie es an und planen Sie neu.</translation>
    </message>
    <message>
        <source>Track %1</source>
        <translation>Titel %1</translation>
    </message>
    <message>
        <source>Track %1 as %2: %3</source>
        <translation>Titel %1 als %2: %3</translation>
    </message>
    <message>
        <source>Transfer %1 is not proven. Prove it first.</source>
        <translation>Übertragung %1 ist nicht nachgewiesen. Weisen Sie sie zuerst nach.</translation>
    </message>
    <message>
        <source>Transfer %1 is under way; run it to its end, or take it back first.</source>
        <translation>Übertragung %1 läuft noch; führen Sie sie zu Ende oder nehmen Sie sie zuerst zurück.</translation>
    </message>
    <message>
        <source>Transfer %1 was not run yet.</source>
        <translation>Übertragung %1 wurde noch nicht gestartet.</translation>
    </message>
    <message>
        <source>Various Artists</source>
        <translation>Verschiedene Künstler</translation>
    </message>
    <message>
        <source>What did not come</source>
        <translation>Was nicht mitkam</translation>
    </message>
    <message>
        <source>What is filed has to leave the inbox.</source>
        <translation>Was eingeordnet wird, muss den Eingangsordner verlassen.</translation>
    </message>
    <message>
        <source>What is offered lies on another host than the shelf; that is not asked.</source>
        <translation>Das Angebotene liegt auf einem anderen Rechner als das Regal; der wird nicht gefragt.</translation>
    </message>
    <message>
        <source>What is offered would be %1; that is no recording.</source>
        <translation>Das Angebotene wäre %1; das ist keine Tonaufnahme.</translation>
    </message>
    <message>
        <source>What it is is not known any more; look at the trash again.</source>
        <translation>Was es ist, ist nicht mehr bekannt; sehen Sie den Papierkorb neu an.</translation>
    </message>
    <message>
        <source>What reads discs broke at %1.</source>
        <translation>Was Discs liest, brach bei %1 ab.</translation>
    </message>
    <message>
        <source>What replaces it stays on its volume.</source>
        <translation>Was sie ersetzt, bleibt auf ihrem Datenträger.</translation>
    </message>
    <message>
        <source>What the offer shelf answers is no list of offers.</source>
        <translation>Was das Angebotsregal antwortet, ist keine Liste von Angeboten.</translation>
    </message>
    <message>
        <source>What the offer shelf sent is not what it promised: its SHA-256 is another.</source>
        <translation>Was das Angebotsregal sandte, ist nicht das Versprochene: die SHA-256 ist eine andere.</translation>
    </message>
    <message>
        <source>What transfer %1 replaced has gone already.</source>
        <translation>Was Übertragung %1 ersetzt hat, ist schon fort.</translation>
    </message>
    <message>
        <source>What waits does not fit: %1 are needed. %2</source>
        <translation>Das Wartende passt nicht: gebraucht werden %1. %2</translation>
    </message>
    <message>
        <source>What was found in the file could not be understood.</source>
        <translation>Was in der Datei gefunden wurde, ließ sich nicht verstehen.</translation>
    </message>
    <message>
        <source>What was made of %1 %2; it is not kept.</source>
        <translation>Was aus %1 gemacht wurde, %2; es wird nicht behalten.</translation>
    </message>
    <message>
        <source>What was mounted at %1 is away; what it holds is not missing.</source>
        <translation>Was bei %1 eingehängt war, ist nicht da; was es enthält, fehlt nicht.</translation>
    </message>
    <message>
        <source>What was mounted there on %1 is away; nothing can be done there now.</source>
        <translation>Was dort auf %1 eingehängt war, ist nicht da; dort lässt sich jetzt nichts tun.</translation>
    </message>
    <message>
        <source>What was read of the disc is not there any more; read it again.</source>
        <translation>Was von der Disc gelesen wurde, ist nicht mehr da; lesen Sie sie neu.</translation>
    </message>
    <message>
        <source>What was read of the disc is not whole in %1; read it anew.</source>
        <translation>Was von der Disc gelesen wurde, ist in %1 nicht ganz; lesen Sie sie neu.</translation>
    </message>
    <message>
        <source>What was scanned is not in the catalogue any more.</source>
        <translation>Was durchgesehen wurde, ist nicht mehr im Katalog.</translation>
    </message>
    <message>
        <source>What was taken for a healthy copy is not what was recorded.</source>
        <translation>Was für eine gesunde Kopie galt, ist nicht, was verzeichnet war.</translation>
    </message>
    <message>
        <source>What was to be written into its tags cannot be read any more.</source>
        <translation>Was in ihre Tags geschrieben werden sollte, lässt sich nicht mehr lesen.</translation>
    </message>
    <message>
        <source>What was to replace it is not known any more; choose again.</source>
        <translation>Was sie ersetzen sollte, ist nicht mehr bekannt; wählen Sie neu.</translation>
    </message>
    <message>
        <source>Where it lies is not known any more; scan again.</source>
        <translation>Wo sie liegt, ist nicht mehr bekannt; sehen Sie neu durch.</translation>
    </message>
    <message>
        <source>With files from %1 up to %2 everything would be left out: the smallest size is above the largest.</source>
        <translation>Mit Dateien von %1 bis %2 würde alles ausgelassen: die kleinste Größe liegt über der größten.</translation>
    </message>
    <message>
        <source>Writing %1</source>
        <translation>%1 wird geschrieben</translation>
    </message>
    <message>
        <source>Wrote %1, and compared it.</source>
        <translation>%1 geschrieben und verglichen.</translation>
    </message>
    <message>
        <source>a Vorbis</source>
        <translation>Vorbis</translation>
    </message>
    <message>
        <source>a better one arrived: %1</source>
        <translation>eine bessere ist angekommen: %1</translation>
    </message>
    <message>
        <source>a box of %1 of which %2 are there</source>
        <translation>ein Kasten von %1, wovon %2 da sind</translation>
    </message>
    <message>
        <source>a field is missing after &quot;|&quot;.</source>
        <translation>nach „|“ fehlt ein Feld.</translation>
    </message>
    <message>
        <source>a folder needs a field or quoted text before the slash.</source>
        <translation>ein Ordner braucht ein Feld oder Text in Anführungszeichen vor dem Schrägstrich.</translation>
    </message>
    <message>
        <source>a frame decodes with errors</source>
        <translation>ein Frame dekodiert mit Fehlern</translation>
    </message>
    <message>
        <source>a frame does not decode</source>
        <translation>ein Frame lässt sich nicht dekodieren</translation>
    </message>
    <message>
        <source>a frame refers to data that is not there</source>
        <translation>ein Frame verweist auf Daten, die nicht da sind</translation>
    </message>
    <message>
        <source>a frame states more data than there is room for</source>
        <translation>ein Frame gibt mehr Daten an, als Platz ist</translation>
    </message>
    <message>
        <source>a hard link to the keeper: retiring it frees nothing</source>
        <translation>eine harte Verknüpfung mit der bleibenden: sie auszusondern macht nichts frei</translation>
    </message>
    <message>
        <source>a line of it makes no sense</source>
        <translation>eine Zeile davon ergibt keinen Sinn</translation>
    </message>
    <message>
        <source>a packet is not whole</source>
        <translation>ein Paket ist nicht ganz</translation>
    </message>
    <message>
        <source>a picture of %1</source>
        <translation>ein Bild von %1</translation>
    </message>
    <message>
        <source>a temporary file</source>
        <translation>eine vorübergehende Datei</translation>
    </message>
    <message>
        <source>accepted as it is</source>
        <translation>angenommen, wie es ist</translation>
    </message>
    <message>
        <source>action on its docket</source>
        <translation>Maßnahme auf seinem Laufzettel</translation>
    </message>
    <message>
        <source>actions on its docket</source>
        <translation>Maßnahmen auf seinem Laufzettel</translation>
    </message>
    <message>
        <source>all are alike; the first by volume and name</source>
        <translation>alle sind gleich; die erste nach Datenträger und Name</translation>
    </message>
    <message>
        <source>all of %1</source>
        <translation>alles von %1</translation>
    </message>
    <message>
        <source>all of it is in the keeper</source>
        <translation>alles davon ist in der bleibenden</translation>
    </message>
    <message>
        <source>all that %1 knows</source>
        <translation>alles, was %1 kennt</translation>
    </message>
    <message>
        <source>an AAC</source>
        <translation>AAC</translation>
    </message>
    <message>
        <source>an AC-3</source>
        <translation>AC-3</translation>
    </message>
    <message>
        <source>an MP3</source>
        <translation>MP3</translation>
    </message>
    <message>
        <source>an Opus</source>
        <translation>Opus</translation>
    </message>
    <message>
        <source>an action of no known kind</source>
        <translation>eine Maßnahme unbekannter Art</translation>
    </message>
    <message>
        <source>an earlier </source>
        <translation>ein früherer </translation>
    </message>
    <message>
        <source>another edit: %1 % of the shorter one is heard in the other, cut otherwise</source>
        <translation>anderer Schnitt: %1 % der kürzeren ist in der anderen zu hören, anders geschnitten</translation>
    </message>
    <message>
        <source>another file stands at its place now; what it was is in the trash.</source>
        <translation>eine andere Datei steht jetzt an ihrem Platz; was sie war, ist im Papierkorb.</translation>
    </message>
    <message>
        <source>another file would have the same name</source>
        <translation>eine andere Datei hätte denselben Namen</translation>
    </message>
    <message>
        <source>another master or level, the ear decides</source>
        <translation>anderer Master oder Pegel, das Ohr entscheidet</translation>
    </message>
    <message>
        <source>another number</source>
        <translation>andere Nummer</translation>
    </message>
    <message>
        <source>another recording: %1 long, not %2</source>
        <translation>eine andere Aufnahme: %1 lang, nicht %2</translation>
    </message>
    <message>
        <source>answers with status %1 instead of what was asked.</source>
        <translation>antwortet mit Status %1 statt mit dem Verlangten.</translation>
    </message>
    <message>
        <source>as good as the keeper by all that was measured</source>
        <translation>nach allem Gemessenen so gut wie die bleibende</translation>
    </message>
    <message>
        <source>at another place by now</source>
        <translation>inzwischen an einem anderen Ort</translation>
    </message>
    <message>
        <source>before the first track</source>
        <translation>vor dem ersten Titel</translation>
    </message>
    <message>
        <source>begins %1 s %2</source>
        <translation>beginnt %1 s %2</translation>
    </message>
    <message>
        <source>begins like audio, but its contents cannot be opened.</source>
        <translation>beginnt wie Ton, aber der Inhalt lässt sich nicht öffnen.</translation>
    </message>
    <message>
        <source>broke off in the middle.</source>
        <translation>brach in der Mitte ab.</translation>
    </message>
    <message>
        <source>brought back</source>
        <translation>zurückgeholt</translation>
    </message>
    <message>
        <source>by %1: %2</source>
        <translation>durch %1: %2</translation>
    </message>
    <message>
        <source>by its fingerprint; both are laid over each other before anything is replaced</source>
        <translation>nach dem Fingerabdruck; beide werden übereinandergelegt, bevor etwas ersetzt wird</translation>
    </message>
    <message>
        <source>bytes that are no audio behind the last frame</source>
        <translation>Bytes, die kein Ton sind, hinter dem letzten Frame</translation>
    </message>
    <message>
        <source>cannot be asked: libcurl is not installed.</source>
        <translation>kann nicht gefragt werden: libcurl ist nicht eingerichtet.</translation>
    </message>
    <message>
        <source>cannot be asked: there is no memory for it.</source>
        <translation>kann nicht gefragt werden: dafür ist kein Speicher da.</translation>
    </message>
    <message>
        <source>cannot be reached.</source>
        <translation>ist nicht zu erreichen.</translation>
    </message>
    <message>
        <source>carrying out</source>
        <translation>ausführen</translation>
    </message>
    <message>
        <source>changed as decided</source>
        <translation>geändert wie entschieden</translation>
    </message>
    <message>
        <source>claims %1, and was %2%3 before</source>
        <translation>gibt %1 an und war vorher %2%3</translation>
    </message>
    <message>
        <source>claims %1, which is doubtful</source>
        <translation>gibt %1 an, was zweifelhaft ist</translation>
    </message>
    <message>
        <source>compared with what was catalogued there: %1</source>
        <translation>verglichen mit dem dort Erfassten: %1</translation>
    </message>
    <message>
        <source>compressed without loss, with a check value of its own</source>
        <translation>verlustfrei verdichtet, mit eigenem Prüfwert</translation>
    </message>
    <message>
        <source>copy of </source>
        <translation>Kopie von </translation>
    </message>
    <message>
        <source>could not be asked: %1.</source>
        <translation>konnte nicht gefragt werden: %1.</translation>
    </message>
    <message>
        <source>decodes whole, another is damaged</source>
        <translation>dekodiert ganz, eine andere ist beschädigt</translation>
    </message>
    <message>
        <source>described by hand</source>
        <translation>von Hand beschrieben</translation>
    </message>
    <message>
        <source>disc %1</source>
        <translation>Disc %1</translation>
    </message>
    <message>
        <source>does not decode whole</source>
        <translation>lässt sich nicht ganz dekodieren</translation>
    </message>
    <message>
        <source>does not sound like it</source>
        <translation>klingt nicht danach</translation>
    </message>
    <message>
        <source>does not state its version and its encoding</source>
        <translation>gibt seine Fassung und seine Kodierung nicht an</translation>
    </message>
    <message>
        <source>entry %1 taken back: %2</source>
        <translation>Eintrag %1 zurückgenommen: %2</translation>
    </message>
    <message>
        <source>equalised by up to %1 dB</source>
        <translation>Klang um bis zu %1 dB geändert</translation>
    </message>
    <message>
        <source>every file would have the same name: its name needs a field.</source>
        <translation>alle Dateien hießen gleich: der Name braucht ein Feld.</translation>
    </message>
    <message>
        <source>every sample, as any program reads it</source>
        <translation>jeder Abtastwert, wie ihn jedes Programm liest</translation>
    </message>
    <message>
        <source>every sample, in half the room</source>
        <translation>jeder Abtastwert, auf halbem Platz</translation>
    </message>
    <message>
        <source>examining what was found</source>
        <translation>das Gefundene untersuchen</translation>
    </message>
    <message>
        <source>fewer lossy generations</source>
        <translation>weniger verlustbehaftete Schritte</translation>
    </message>
    <message>
        <source>fixity check</source>
        <translation>Prüfung der Unversehrtheit</translation>
    </message>
    <message>
        <source>flush the folder</source>
        <translation>den Ordner sichern</translation>
    </message>
    <message>
        <source>forgotten with %1</source>
        <translation>vergessen mit %1</translation>
    </message>
    <message>
        <source>found %1 %2</source>
        <translation>gefunden %1 %2</translation>
    </message>
    <message>
        <source>found %1.%2</source>
        <translation>gefunden %1.%2</translation>
    </message>
    <message>
        <source>frame %1</source>
        <translation>Frame %1</translation>
    </message>
    <message>
        <source>frame that states the length</source>
        <translation>Frame, der die Länge angibt</translation>
    </message>
    <message>
        <source>from %1 Hz and %2 to %3 Hz and %4</source>
        <translation>von %1 Hz und %2 zu %3 Hz und %4</translation>
    </message>
    <message>
        <source>genuine %1</source>
        <translation>echt: %1</translation>
    </message>
    <message>
        <source>give its name to</source>
        <translation>den Namen geben:</translation>
    </message>
    <message>
        <source>given its tags</source>
        <translation>mit Tags versehen</translation>
    </message>
    <message>
        <source>has stopped answering.</source>
        <translation>antwortet nicht mehr.</translation>
    </message>
    <message>
        <source>held beside %1</source>
        <translation>vorhanden neben %1</translation>
    </message>
    <message>
        <source>held inside an archive, which is never written to</source>
        <translation>in einem Archiv vorhanden, in das nie geschrieben wird</translation>
    </message>
    <message>
        <source>holding a list against the catalogue</source>
        <translation>eine Liste mit dem Katalog vergleichen</translation>
    </message>
    <message>
        <source>holds a zero byte</source>
        <translation>enthält ein Nullbyte</translation>
    </message>
    <message>
        <source>holds another kind of checksum than the lines before</source>
        <translation>enthält eine andere Art Prüfsumme als die Zeilen davor</translation>
    </message>
    <message>
        <source>holds no audio.</source>
        <translation>enthält keinen Ton.</translation>
    </message>
    <message>
        <source>holds nothing above %1 kHz: a rate of %2 Hz was not needed, it was made from less</source>
        <translation>enthält nichts über %1 kHz: eine Rate von %2 Hz war nicht nötig, es wurde aus weniger gemacht</translation>
    </message>
    <message>
        <source>how it was read</source>
        <translation>wie sie gelesen wurde</translation>
    </message>
    <message>
        <source>in a place that does not last (%1)</source>
        <translation>an einem Ort ohne Dauer (%1)</translation>
    </message>
    <message>
        <source>in mono</source>
        <translation>in Mono</translation>
    </message>
    <message>
        <source>in stereo, the other in mono</source>
        <translation>in Stereo, die andere in Mono</translation>
    </message>
    <message>
        <source>in the home of another user</source>
        <translation>im Heimatordner eines anderen Benutzers</translation>
    </message>
    <message>
        <source>in the trash,</source>
        <translation>im Papierkorb,</translation>
    </message>
    <message>
        <source>is %1 s long and not %2 s</source>
        <translation>ist %1 s lang und nicht %2 s</translation>
    </message>
    <message>
        <source>is damaged</source>
        <translation>ist beschädigt</translation>
    </message>
    <message>
        <source>is empty.</source>
        <translation>ist leer.</translation>
    </message>
    <message>
        <source>is listed and not there</source>
        <translation>ist aufgeführt und nicht da</translation>
    </message>
    <message>
        <source>is not a catalogue of Sober Archivist</source>
        <translation>ist kein Katalog von Sober Archivist</translation>
    </message>
    <message>
        <source>is there and not listed</source>
        <translation>ist da und nicht aufgeführt</translation>
    </message>
    <message>
        <source>it cannot be looked at now. Look to its drive, then start again.</source>
        <translation>es lässt sich jetzt nicht ansehen. Sehen Sie nach dem Laufwerk und starten Sie dann wieder.</translation>
    </message>
    <message>
        <source>it does not decode</source>
        <translation>sie lässt sich nicht dekodieren</translation>
    </message>
    <message>
        <source>it does not decode whole, so it is not encoded</source>
        <translation>sie lässt sich nicht ganz dekodieren und wird daher nicht neu kodiert</translation>
    </message>
    <message>
        <source>it ends early</source>
        <translation>sie endet früh</translation>
    </message>
    <message>
        <source>it ends in a dot</source>
        <translation>er endet mit einem Punkt</translation>
    </message>
    <message>
        <source>it ends in a space</source>
        <translation>er endet mit einem Leerzeichen</translation>
    </message>
    <message>
        <source>it has no table of contents</source>
        <translation>es hat kein Inhaltsverzeichnis</translation>
    </message>
    <message>
        <source>it has the same bytes</source>
        <translation>sie hat dieselben Bytes</translation>
    </message>
    <message>
        <source>it holds &quot;%1&quot;</source>
        <translation>er enthält „%1“</translation>
    </message>
    <message>
        <source>it holds a character beyond the basic plane of Unicode</source>
        <translation>er enthält ein Zeichen jenseits der Grundebene von Unicode</translation>
    </message>
    <message>
        <source>it holds a control character</source>
        <translation>er enthält ein Steuerzeichen</translation>
    </message>
    <message>
        <source>it holds bytes that are no text</source>
        <translation>er enthält Bytes, die kein Text sind</translation>
    </message>
    <message>
        <source>it holds no sound chunk</source>
        <translation>es enthält kein Tonstück</translation>
    </message>
    <message>
        <source>it is %1 long, %2 are allowed</source>
        <translation>er ist %1 lang, erlaubt sind %2</translation>
    </message>
    <message>
        <source>it is damaged itself: %1</source>
        <translation>sie ist selbst beschädigt: %1</translation>
    </message>
    <message>
        <source>it is entry %1 of the list already</source>
        <translation>sie ist schon Eintrag %1 der Liste</translation>
    </message>
    <message>
        <source>it is larger than the target can hold</source>
        <translation>sie ist größer, als das Ziel fassen kann</translation>
    </message>
    <message>
        <source>it is missing</source>
        <translation>sie fehlt</translation>
    </message>
    <message>
        <source>it is mounted at %1</source>
        <translation>es ist eingehängt bei %1</translation>
    </message>
    <message>
        <source>it is no better</source>
        <translation>sie ist nicht besser</translation>
    </message>
    <message>
        <source>it is no local file</source>
        <translation>sie ist keine örtliche Datei</translation>
    </message>
    <message>
        <source>it is no name</source>
        <translation>es ist kein Name</translation>
    </message>
    <message>
        <source>it is not as it was when it was moved</source>
        <translation>sie ist nicht mehr, wie sie beim Verschieben war</translation>
    </message>
    <message>
        <source>it is not there</source>
        <translation>sie ist nicht da</translation>
    </message>
    <message>
        <source>it is not where it was moved to</source>
        <translation>sie ist nicht, wohin sie verschoben wurde</translation>
    </message>
    <message>
        <source>it is on no volume; survey its folder</source>
        <translation>sie ist auf keinem Datenträger; erfassen Sie ihren Ordner</translation>
    </message>
    <message>
        <source>it is silent, so nothing can be told of its making</source>
        <translation>sie ist stumm; über ihre Entstehung lässt sich nichts sagen</translation>
    </message>
    <message>
        <source>it is that volume</source>
        <translation>es ist dieser Datenträger</translation>
    </message>
    <message>
        <source>it is the better one</source>
        <translation>sie ist die bessere</translation>
    </message>
    <message>
        <source>it is the name of a device there</source>
        <translation>er ist dort der Name eines Geräts</translation>
    </message>
    <message>
        <source>it leads nowhere</source>
        <translation>er führt nirgendwohin</translation>
    </message>
    <message>
        <source>it leads out of the new place</source>
        <translation>er führt aus dem neuen Ort hinaus</translation>
    </message>
    <message>
        <source>it lies inside an archive; copy it out first</source>
        <translation>sie liegt in einem Archiv; kopieren Sie sie zuerst heraus</translation>
    </message>
    <message>
        <source>it lies on another host than the shelf, which is not asked</source>
        <translation>sie liegt auf einem anderen Rechner als das Regal, der nicht gefragt wird</translation>
    </message>
    <message>
        <source>it lies on another volume</source>
        <translation>sie liegt auf einem anderen Datenträger</translation>
    </message>
    <message>
        <source>it lies within or around %1</source>
        <translation>es liegt in oder um %1</translation>
    </message>
    <message>
        <source>it repeats itself exactly every %1 samples, as electronic tones do: an encoder&apos;s block grid cannot be told from that</source>
        <translation>sie wiederholt sich genau alle %1 Abtastwerte, wie elektronische Töne: das Blockraster eines Encoders lässt sich davon nicht unterscheiden</translation>
    </message>
    <message>
        <source>it sounds no better by what was measured</source>
        <translation>sie klingt nach dem Gemessenen nicht besser</translation>
    </message>
    <message>
        <source>it took longer than any sound file would</source>
        <translation>es dauerte länger als bei jeder Tondatei</translation>
    </message>
    <message>
        <source>it was changed since</source>
        <translation>sie wurde seither geändert</translation>
    </message>
    <message>
        <source>it was let go of for good; its bytes are held at %1</source>
        <translation>sie wurde für immer freigegeben; ihre Bytes sind vorhanden bei %1</translation>
    </message>
    <message>
        <source>it was lossy before</source>
        <translation>sie war schon verlustbehaftet</translation>
    </message>
    <message>
        <source>it was not compared with the keeper itself</source>
        <translation>sie wurde nicht mit der bleibenden selbst verglichen</translation>
    </message>
    <message>
        <source>it was not examined: survey its volume at full effort first</source>
        <translation>sie wurde nicht untersucht: erfassen Sie ihren Datenträger zuerst mit vollem Aufwand</translation>
    </message>
    <message>
        <source>it was not shown to carry it</source>
        <translation>dass sie diese Aufnahme enthält, wurde nicht gezeigt</translation>
    </message>
    <message>
        <source>it would be longer than 100 minutes</source>
        <translation>es wäre länger als 100 Minuten</translation>
    </message>
    <message>
        <source>its %1 is another than is listed</source>
        <translation>%1 ist anders als aufgeführt</translation>
    </message>
    <message>
        <source>its %1 kbit/s would carry more</source>
        <translation>ihre %1 kbit/s würden mehr tragen</translation>
    </message>
    <message>
        <source>its bitrate varies and it does not state how long it is</source>
        <translation>ihre Bitrate schwankt, und sie gibt nicht an, wie lang sie ist</translation>
    </message>
    <message>
        <source>its first line is another</source>
        <translation>ihre erste Zeile ist eine andere</translation>
    </message>
    <message>
        <source>its folder would hold more than the target can</source>
        <translation>ihr Ordner enthielte mehr, als das Ziel kann</translation>
    </message>
    <message>
        <source>its format is not stated before the sound</source>
        <translation>ihr Format steht nicht vor dem Ton</translation>
    </message>
    <message>
        <source>its kind of checksum is not known here</source>
        <translation>diese Art Prüfsumme ist hier nicht bekannt</translation>
    </message>
    <message>
        <source>its name says more of what it is</source>
        <translation>ihr Name sagt mehr darüber, was sie ist</translation>
    </message>
    <message>
        <source>its place cannot be looked at now</source>
        <translation>ihr Ort lässt sich jetzt nicht ansehen</translation>
    </message>
    <message>
        <source>its place is taken</source>
        <translation>ihr Platz ist vergeben</translation>
    </message>
    <message>
        <source>its rate or channels change here</source>
        <translation>ihre Rate oder ihre Kanäle wechseln hier</translation>
    </message>
    <message>
        <source>its sound ends within a sample frame</source>
        <translation>ihr Ton endet mitten in einem Abtastwert</translation>
    </message>
    <message>
        <source>its tags say more</source>
        <translation>ihre Tags sagen mehr</translation>
    </message>
    <message>
        <source>its volume is away</source>
        <translation>ihr Datenträger ist nicht da</translation>
    </message>
    <message>
        <source>kept instead: %1</source>
        <translation>stattdessen behalten: %1</translation>
    </message>
    <message>
        <source>known here as they are by now</source>
        <translation>hier bekannt, wie sie inzwischen sind</translation>
    </message>
    <message>
        <source>later in it</source>
        <translation>später darin</translation>
    </message>
    <message>
        <source>leads in a circle.</source>
        <translation>führt im Kreis.</translation>
    </message>
    <message>
        <source>leads to an address that is none.</source>
        <translation>führt zu einer Adresse, die keine ist.</translation>
    </message>
    <message>
        <source>leads to another host, which is not asked.</source>
        <translation>führt zu einem anderen Rechner, der nicht gefragt wird.</translation>
    </message>
    <message>
        <source>leaves the list&apos;s folder</source>
        <translation>verlässt den Ordner der Liste</translation>
    </message>
    <message>
        <source>let go of</source>
        <translation>freigegeben</translation>
    </message>
    <message>
        <source>lies in a temporary place, such as downloads</source>
        <translation>liegt an einem vorübergehenden Ort, etwa bei Downloads</translation>
    </message>
    <message>
        <source>list of a player</source>
        <translation>Liste eines Abspielers</translation>
    </message>
    <message>
        <source>list the folder</source>
        <translation>den Ordner auflisten</translation>
    </message>
    <message>
        <source>lists of players</source>
        <translation>Listen von Abspielern</translation>
    </message>
    <message>
        <source>look at</source>
        <translation>ansehen</translation>
    </message>
    <message>
        <source>look for room in</source>
        <translation>Platz suchen in</translation>
    </message>
    <message>
        <source>looking through the image</source>
        <translation>das Abbild durchsehen</translation>
    </message>
    <message>
        <source>make a temporary file in</source>
        <translation>eine vorübergehende Datei machen in</translation>
    </message>
    <message>
        <source>make the folder</source>
        <translation>den Ordner machen</translation>
    </message>
    <message>
        <source>make the lock</source>
        <translation>die Sperre machen</translation>
    </message>
    <message>
        <source>makes no sense in a list of checksums</source>
        <translation>ergibt in einer Prüfsummenliste keinen Sinn</translation>
    </message>
    <message>
        <source>making the files</source>
        <translation>die Dateien machen</translation>
    </message>
    <message>
        <source>message digest calculation</source>
        <translation>Berechnung einer Prüfsumme</translation>
    </message>
    <message>
        <source>metadata modification</source>
        <translation>Änderung von Metadaten</translation>
    </message>
    <message>
        <source>missing; it was %1%2</source>
        <translation>fehlt; war %1%2</translation>
    </message>
    <message>
        <source>named as a second copy</source>
        <translation>heißt wie eine zweite Kopie</translation>
    </message>
    <message>
        <source>named by </source>
        <translation>benannt nach </translation>
    </message>
    <message>
        <source>names a file for the second time</source>
        <translation>nennt eine Datei zum zweiten Mal</translation>
    </message>
    <message>
        <source>names an absolute place</source>
        <translation>nennt einen absoluten Ort</translation>
    </message>
    <message>
        <source>names its files in %1, which is taken as bytes</source>
        <translation>nennt seine Dateien in %1, was als Bytes genommen wird</translation>
    </message>
    <message>
        <source>names, with lengths or tags that agree, of %1</source>
        <translation>Namen mit passenden Längen oder Tags bei %1</translation>
    </message>
    <message>
        <source>no block grid of an encoder was found, so this may be the recording&apos;s own limit</source>
        <translation>kein Blockraster eines Encoders wurde gefunden, also kann das die Grenze der Aufnahme selbst sein</translation>
    </message>
    <message>
        <source>no checksum</source>
        <translation>keine Prüfsumme</translation>
    </message>
    <message>
        <source>no copy is at hand</source>
        <translation>keine Kopie ist zur Hand</translation>
    </message>
    <message>
        <source>no copy of this master would be left</source>
        <translation>keine Kopie dieses Masters bliebe</translation>
    </message>
    <message>
        <source>no copy that holds all of it would be left</source>
        <translation>keine Kopie, die alles davon enthält, bliebe</translation>
    </message>
    <message>
        <source>no difference left</source>
        <translation>kein Unterschied bleibt</translation>
    </message>
    <message>
        <source>no lossless copy of it would be left</source>
        <translation>keine verlustfreie Kopie davon bliebe</translation>
    </message>
    <message>
        <source>no sound copy is at hand</source>
        <translation>keine heile Kopie ist zur Hand</translation>
    </message>
    <message>
        <source>no space is left</source>
        <translation>es ist kein Platz mehr</translation>
    </message>
    <message>
        <source>no trace of an earlier encode below its own</source>
        <translation>keine Spur eines früheren Encoders unter dem eigenen</translation>
    </message>
    <message>
        <source>no trace of an earlier encoder, no dead stop; sound reaches %1 kHz</source>
        <translation>keine Spur eines früheren Encoders, kein jähes Ende; der Klang reicht bis %1 kHz</translation>
    </message>
    <message>
        <source>not all of it is in the keeper</source>
        <translation>nicht alles davon ist in der bleibenden</translation>
    </message>
    <message>
        <source>not ended</source>
        <translation>nicht beendet</translation>
    </message>
    <message>
        <source>not in a temporary place, such as downloads</source>
        <translation>nicht an einem vorübergehenden Ort, etwa bei Downloads</translation>
    </message>
    <message>
        <source>not known here, gone since</source>
        <translation>hier nicht bekannt, seither fort</translation>
    </message>
    <message>
        <source>not the bytes that were catalogued there</source>
        <translation>nicht die dort erfassten Bytes</translation>
    </message>
    <message>
        <source>nothing above -80 dBFS from beginning to end</source>
        <translation>von Anfang bis Ende nichts über -80 dBFS</translation>
    </message>
    <message>
        <source>nothing of it reaches beyond what is held, and so little differs that it may have been made of it</source>
        <translation>nichts davon reicht über das Vorhandene hinaus, und so wenig ist anders, dass es daraus gemacht sein kann</translation>
    </message>
    <message>
        <source>of %1 only %2 there at the same place with the same size</source>
        <translation>von %1 am selben Ort mit gleicher Größe nur da: %2</translation>
    </message>
    <message>
        <source>of its folder &quot;%1&quot;, %2</source>
        <translation>von ihrem Ordner „%1“, %2</translation>
    </message>
    <message>
        <source>of nothing in the midst of sound</source>
        <translation>von nichts mitten im Klang</translation>
    </message>
    <message>
        <source>offer shelf</source>
        <translation>Angebotsregal</translation>
    </message>
    <message>
        <source>old name</source>
        <translation>alter Name</translation>
    </message>
    <message>
        <source>old name without its number</source>
        <translation>alter Name ohne seine Nummer</translation>
    </message>
    <message>
        <source>on a volume that is at hand</source>
        <translation>auf einem Datenträger zur Hand</translation>
    </message>
    <message>
        <source>on the card %1, which is not always there</source>
        <translation>auf der Karte %1, die nicht immer da ist</translation>
    </message>
    <message>
        <source>only a copy of clearly lower quality would be left</source>
        <translation>nur eine Kopie von deutlich geringerer Güte bliebe</translation>
    </message>
    <message>
        <source>only a copy that is not what it claims would be left</source>
        <translation>nur eine Kopie bliebe, die nicht ist, was sie angibt</translation>
    </message>
    <message>
        <source>only a passage of the keeper</source>
        <translation>nur ein Stück der bleibenden</translation>
    </message>
    <message>
        <source>only the fingerprints were compared</source>
        <translation>nur die Fingerabdrücke wurden verglichen</translation>
    </message>
    <message>
        <source>only the tags look alike</source>
        <translation>nur die Tags sind ähnlich</translation>
    </message>
    <message>
        <source>only the tags look alike, the sound is another recording</source>
        <translation>nur die Tags sind ähnlich, der Klang ist eine andere Aufnahme</translation>
    </message>
    <message>
        <source>only the tags look alike: not the same recording</source>
        <translation>nur die Tags sind ähnlich: nicht dieselbe Aufnahme</translation>
    </message>
    <message>
        <source>only the tags look alike; it is too short to tell more</source>
        <translation>nur die Tags sind ähnlich; sie ist zu kurz, um mehr zu sagen</translation>
    </message>
    <message>
        <source>open the folder</source>
        <translation>den Ordner öffnen</translation>
    </message>
    <message>
        <source>other tags or container</source>
        <translation>andere Tags oder anderer Container</translation>
    </message>
    <message>
        <source>packet %1</source>
        <translation>Paket %1</translation>
    </message>
    <message>
        <source>page %1 of stream %2%3</source>
        <translation>Seite %1 von Strom %2%3</translation>
    </message>
    <message>
        <source>page %1 where page %2 should be</source>
        <translation>Seite %1, wo Seite %2 sein müsste</translation>
    </message>
    <message>
        <source>permission is denied</source>
        <translation>die Berechtigung fehlt</translation>
    </message>
    <message>
        <source>promised; proven once it is fetched</source>
        <translation>versprochen; belegt, sobald sie geholt ist</translation>
    </message>
    <message>
        <source>proven at its new place by transfer %1</source>
        <translation>an ihrem neuen Ort nachgewiesen durch Übertragung %1</translation>
    </message>
    <message>
        <source>putting in order what was interrupted</source>
        <translation>Unterbrochenes in Ordnung bringen</translation>
    </message>
    <message>
        <source>quality review</source>
        <translation>Prüfung der Güte</translation>
    </message>
    <message>
        <source>quoted text cannot hold a slash; folders are parted outside of it.</source>
        <translation>Text in Anführungszeichen kann keinen Schrägstrich enthalten; Ordner werden außerhalb getrennt.</translation>
    </message>
    <message>
        <source>recordings made at %1 Hz end there too, and no block grid of an encoder was found</source>
        <translation>Aufnahmen mit %1 Hz enden auch dort, und kein Blockraster eines Encoders wurde gefunden</translation>
    </message>
    <message>
        <source>retired from %1%2</source>
        <translation>ausgesondert von %1%2</translation>
    </message>
    <message>
        <source>rip register</source>
        <translation>Leseregister</translation>
    </message>
    <message>
        <source>runs %1 % %2</source>
        <translation>läuft %1 % %2</translation>
    </message>
    <message>
        <source>salvaged, and held at %1</source>
        <translation>geborgen und vorhanden bei %1</translation>
    </message>
    <message>
        <source>same audio data</source>
        <translation>gleiche Audiodaten</translation>
    </message>
    <message>
        <source>same bytes</source>
        <translation>gleiche Bytes</translation>
    </message>
    <message>
        <source>same recording, lossy copy</source>
        <translation>gleiche Aufnahme, verlustbehaftete Kopie</translation>
    </message>
    <message>
        <source>same recording, other master or level</source>
        <translation>gleiche Aufnahme, anderer Master oder Pegel</translation>
    </message>
    <message>
        <source>same recording, shorter or longer</source>
        <translation>gleiche Aufnahme, kürzer oder länger</translation>
    </message>
    <message>
        <source>same samples</source>
        <translation>gleiche Abtastwerte</translation>
    </message>
    <message>
        <source>samples of an unknown form</source>
        <translation>Abtastwerte unbekannter Form</translation>
    </message>
    <message>
        <source>set the mode of</source>
        <translation>die Rechte setzen von</translation>
    </message>
    <message>
        <source>share the lock of</source>
        <translation>die Sperre teilen von</translation>
    </message>
    <message>
        <source>shorter, and better than the keeper</source>
        <translation>kürzer, und besser als die bleibende</translation>
    </message>
    <message>
        <source>shown by you</source>
        <translation>von Ihnen gezeigt</translation>
    </message>
    <message>
        <source>something else lies on it and uses it</source>
        <translation>etwas anderes liegt darauf und benutzt es</translation>
    </message>
    <message>
        <source>something else stands there</source>
        <translation>etwas anderes steht dort</translation>
    </message>
    <message>
        <source>something of it would no longer be held</source>
        <translation>etwas davon wäre nicht mehr vorhanden</translation>
    </message>
    <message>
        <source>states %1 and holds %2</source>
        <translation>gibt %1 an und enthält %2</translation>
    </message>
    <message>
        <source>states %1 in all and holds %2</source>
        <translation>gibt insgesamt %1 an und enthält %2</translation>
    </message>
    <message>
        <source>states %1 of sound and holds %2</source>
        <translation>gibt %1 Ton an und enthält %2</translation>
    </message>
    <message>
        <source>states a payload of %1, and it is %2</source>
        <translation>gibt einen Inhalt von %1 an, und er ist %2</translation>
    </message>
    <message>
        <source>states neither a sample rate nor channels that could be played.</source>
        <translation>gibt weder eine Abtastrate noch Kanäle an, die sich abspielen ließen.</translation>
    </message>
    <message>
        <source>stops dead at %1 kHz, by %2 dB, as lossy encoders do</source>
        <translation>endet jäh bei %1 kHz, um %2 dB, wie bei verlustbehafteten Encodern</translation>
    </message>
    <message>
        <source>taken back</source>
        <translation>zurückgenommen</translation>
    </message>
    <message>
        <source>taken from its disc</source>
        <translation>von der Disc genommen</translation>
    </message>
    <message>
        <source>taken in to %1</source>
        <translation>aufgenommen nach %1</translation>
    </message>
    <message>
        <source>taking back entry %1</source>
        <translation>Eintrag %1 zurücknehmen</translation>
    </message>
    <message>
        <source>that stand at one value</source>
        <translation>, die auf einem Wert stehen</translation>
    </message>
    <message>
        <source>that you keep</source>
        <translation>, die Sie behalten</translation>
    </message>
    <message>
        <source>the %1 was &quot;%2&quot; and is &quot;%3&quot;</source>
        <translation>%1 war „%2“ und ist „%3“</translation>
    </message>
    <message>
        <source>the best copy does not meet the first preference</source>
        <translation>die beste Kopie erfüllt den ersten Wunsch nicht</translation>
    </message>
    <message>
        <source>the better-named copy</source>
        <translation>die besser benannte Kopie</translation>
    </message>
    <message>
        <source>the catalogue has seen this file move</source>
        <translation>der Katalog hat diese Datei umziehen sehen</translation>
    </message>
    <message>
        <source>the check value of a frame does not hold</source>
        <translation>der Prüfwert eines Frames stimmt nicht</translation>
    </message>
    <message>
        <source>the check value of a page does not hold</source>
        <translation>der Prüfwert einer Seite stimmt nicht</translation>
    </message>
    <message>
        <source>the collection</source>
        <translation>die Sammlung</translation>
    </message>
    <message>
        <source>the copy %1 is %2 on %3</source>
        <translation>die Kopie %1 ist %2 auf %3</translation>
    </message>
    <message>
        <source>the copy below the folder %1</source>
        <translation>die Kopie unter dem Ordner %1</translation>
    </message>
    <message>
        <source>the copy on %1</source>
        <translation>die Kopie auf %1</translation>
    </message>
    <message>
        <source>the copy on a volume that is no longer known</source>
        <translation>die Kopie auf einem nicht mehr bekannten Datenträger</translation>
    </message>
    <message>
        <source>the copy with more tags</source>
        <translation>die Kopie mit mehr Tags</translation>
    </message>
    <message>
        <source>the copy written first</source>
        <translation>die zuerst geschriebene Kopie</translation>
    </message>
    <message>
        <source>the copy written last</source>
        <translation>die zuletzt geschriebene Kopie</translation>
    </message>
    <message>
        <source>the custodian&apos;s choice</source>
        <translation>die Wahl des Verwahrers</translation>
    </message>
    <message>
        <source>the decoder broke: %1</source>
        <translation>der Decoder brach ab: %1</translation>
    </message>
    <message>
        <source>the decoder gave up</source>
        <translation>der Decoder gab auf</translation>
    </message>
    <message>
        <source>the difference is %1 dB below</source>
        <translation>der Unterschied liegt %1 dB darunter</translation>
    </message>
    <message>
        <source>the disc itself</source>
        <translation>die Disc selbst</translation>
    </message>
    <message>
        <source>the docket holds %1 about it</source>
        <translation>auf dem Laufzettel stehen dazu %1</translation>
    </message>
    <message>
        <source>the drive reported a read error</source>
        <translation>das Laufwerk meldete einen Lesefehler</translation>
    </message>
    <message>
        <source>the example that you showed</source>
        <translation>das Beispiel, das Sie zeigten</translation>
    </message>
    <message>
        <source>the file ends within a chunk</source>
        <translation>die Datei endet in einem Stück</translation>
    </message>
    <message>
        <source>the file ends within a frame</source>
        <translation>die Datei endet in einem Frame</translation>
    </message>
    <message>
        <source>the file ends within a packet</source>
        <translation>die Datei endet in einem Paket</translation>
    </message>
    <message>
        <source>the file ends within a page</source>
        <translation>die Datei endet in einer Seite</translation>
    </message>
    <message>
        <source>the file is named %1</source>
        <translation>die Datei heißt %1</translation>
    </message>
    <message>
        <source>the file needs a name.</source>
        <translation>die Datei braucht einen Namen.</translation>
    </message>
    <message>
        <source>the first thirty seconds as MP3</source>
        <translation>die ersten dreißig Sekunden als MP3</translation>
    </message>
    <message>
        <source>the folder above</source>
        <translation>der Ordner darüber</translation>
    </message>
    <message>
        <source>the keeper&apos;s recording: %1</source>
        <translation>die Aufnahme der bleibenden: %1</translation>
    </message>
    <message>
        <source>the latest arrivals</source>
        <translation>die neuesten Zugänge</translation>
    </message>
    <message>
        <source>the length of its sound is not stated</source>
        <translation>die Länge ihres Tons ist nicht angegeben</translation>
    </message>
    <message>
        <source>the list %1</source>
        <translation>die Liste %1</translation>
    </message>
    <message>
        <source>the longest</source>
        <translation>die längste</translation>
    </message>
    <message>
        <source>the lookup</source>
        <translation>der Nachschlagedienst</translation>
    </message>
    <message>
        <source>the mark that ends the stream is not there</source>
        <translation>das Zeichen, das den Strom beendet, ist nicht da</translation>
    </message>
    <message>
        <source>the names of %1</source>
        <translation>die Namen von %1</translation>
    </message>
    <message>
        <source>the names written otherwise</source>
        <translation>die anders geschriebenen Namen</translation>
    </message>
    <message>
        <source>the number left out</source>
        <translation>die Nummer weggelassen</translation>
    </message>
    <message>
        <source>the one written first</source>
        <translation>die zuerst geschriebene</translation>
    </message>
    <message>
        <source>the only file of that name</source>
        <translation>die einzige Datei dieses Namens</translation>
    </message>
    <message>
        <source>the quoted text has no end.</source>
        <translation>der Text in Anführungszeichen hat kein Ende.</translation>
    </message>
    <message>
        <source>the recording would then be on %1 only</source>
        <translation>die Aufnahme wäre dann nur noch auf %1</translation>
    </message>
    <message>
        <source>the same %1</source>
        <translation>gleich: %1</translation>
    </message>
    <message>
        <source>the same audio data as what was catalogued there</source>
        <translation>dieselben Audiodaten wie das dort Erfasste</translation>
    </message>
    <message>
        <source>the same bytes as what was catalogued there</source>
        <translation>dieselben Bytes wie das dort Erfasste</translation>
    </message>
    <message>
        <source>the same length</source>
        <translation>dieselbe Länge</translation>
    </message>
    <message>
        <source>the same name but for letter case, normalisation or percent signs</source>
        <translation>derselbe Name bis auf Groß- und Kleinschreibung, Normalisierung oder Prozentzeichen</translation>
    </message>
    <message>
        <source>the same recording, %1 s %2</source>
        <translation>dieselbe Aufnahme, %1 s %2</translation>
    </message>
    <message>
        <source>the samples do not have the MD5 that the file states</source>
        <translation>die Abtastwerte haben nicht die MD5, die die Datei angibt</translation>
    </message>
    <message>
        <source>the shelf does not offer it</source>
        <translation>das Regal bietet sie nicht an</translation>
    </message>
    <message>
        <source>the shelf does not offer it any more</source>
        <translation>das Regal bietet sie nicht mehr an</translation>
    </message>
    <message>
        <source>the smaller file</source>
        <translation>die kleinere Datei</translation>
    </message>
    <message>
        <source>the stream cannot be read on here</source>
        <translation>der Strom lässt sich hier nicht weiter lesen</translation>
    </message>
    <message>
        <source>the system runs from it</source>
        <translation>das System läuft davon</translation>
    </message>
    <message>
        <source>the system swaps to it</source>
        <translation>das System lagert darauf aus</translation>
    </message>
    <message>
        <source>the time of a page lies before that of the page before it</source>
        <translation>die Zeit einer Seite liegt vor jener der Seite davor</translation>
    </message>
    <message>
        <source>the trash no longer holds it</source>
        <translation>der Papierkorb enthält sie nicht mehr</translation>
    </message>
    <message>
        <source>the volume is read-only</source>
        <translation>der Datenträger ist schreibgeschützt</translation>
    </message>
    <message>
        <source>there are tracks above 99</source>
        <translation>es gibt Titel über 99</translation>
    </message>
    <message>
        <source>there is no field &quot;%1&quot;; there are %2.</source>
        <translation>es gibt kein Feld „%1“; es gibt %2.</translation>
    </message>
    <message>
        <source>there is too little sound above 8 kHz to tell; dull recordings are not accused</source>
        <translation>über 8 kHz ist zu wenig Klang, um es zu sagen; dumpfe Aufnahmen werden nicht beschuldigt</translation>
    </message>
    <message>
        <source>they are less alike than the policy decides on</source>
        <translation>sie sind weniger gleich, als die Richtlinie entscheidet</translation>
    </message>
    <message>
        <source>this passage would be held only within a longer recording</source>
        <translation>dieses Stück wäre nur noch in einer längeren Aufnahme vorhanden</translation>
    </message>
    <message>
        <source>this system cannot confine what reads foreign files, and so nothing is read</source>
        <translation>dieses System kann nicht einschließen, was fremde Dateien liest, und so wird nichts gelesen</translation>
    </message>
    <message>
        <source>to keep</source>
        <translation>zu behalten</translation>
    </message>
    <message>
        <source>to sort</source>
        <translation>zu sortieren</translation>
    </message>
    <message>
        <source>track %1</source>
        <translation>Titel %1</translation>
    </message>
    <message>
        <source>track %1 begins at %2 and ends at %3, and the disc at %4</source>
        <translation>Titel %1 beginnt bei %2 und endet bei %3, und die Disc bei %4</translation>
    </message>
    <message>
        <source>track %1 does not come after track %2</source>
        <translation>Titel %1 kommt nicht nach Titel %2</translation>
    </message>
    <message>
        <source>transfer %1</source>
        <translation>Übertragung %1</translation>
    </message>
    <message>
        <source>unknown error</source>
        <translation>unbekannter Fehler</translation>
    </message>
    <message>
        <source>unpack %1 into</source>
        <translation>%1 entpacken in</translation>
    </message>
    <message>
        <source>volume %1</source>
        <translation>Datenträger %1</translation>
    </message>
    <message>
        <source>what is held is: %1</source>
        <translation>vorhanden ist: %1</translation>
    </message>
    <message>
        <source>what it promises (%1) is no better</source>
        <translation>was sie verspricht (%1), ist nicht besser</translation>
    </message>
    <message>
        <source>what it says of its silent ends is more than it holds</source>
        <translation>was sie von ihren stillen Enden sagt, ist mehr, als sie enthält</translation>
    </message>
    <message>
        <source>what no list names</source>
        <translation>was keine Liste nennt</translation>
    </message>
    <message>
        <source>what the trash holds under its name is another file</source>
        <translation>was der Papierkorb unter ihrem Namen enthält, ist eine andere Datei</translation>
    </message>
    <message>
        <source>where the rule %1 leads</source>
        <translation>wohin die Regel %1 führt</translation>
    </message>
    <message>
        <source>with other content by now</source>
        <translation>inzwischen mit anderem Inhalt</translation>
    </message>
    <message>
        <source>written anew</source>
        <translation>neu geschrieben</translation>
    </message>
    <message>
        <source>written in another form</source>
        <translation>in anderer Form geschrieben</translation>
    </message>
    <message>
        <source>written off</source>
        <translation>abgeschrieben</translation>
    </message>
    <message>
        <source>written off; it was %1</source>
        <translation>abgeschrieben; war %1</translation>
    </message>
    <message>
        <source>accept</source>
        <translation>annehmen</translation>
    </message>
    <message>
        <source>accept-change</source>
        <translation>Änderung annehmen</translation>
    </message>
    <message>
        <source>accepted</source>
        <translation>angenommen</translation>
    </message>
    <message>
        <source>added</source>
        <translation>neu</translation>
    </message>
    <message>
        <source>album</source>
        <translation>Album</translation>
    </message>
    <message>
        <source>audio-altered</source>
        <translation>Ton verändert</translation>
    </message>
    <message>
        <source>blocks</source>
        <translation>Blöcke</translation>
    </message>
    <message>
        <source>bring-back</source>
        <translation>zurückholen</translation>
    </message>
    <message>
        <source>changed</source>
        <translation>geändert</translation>
    </message>
    <message>
        <source>comparing</source>
        <translation>vergleichen</translation>
    </message>
    <message>
        <source>copied</source>
        <translation>kopiert</translation>
    </message>
    <message>
        <source>copy</source>
        <translation>kopieren</translation>
    </message>
    <message>
        <source>cut</source>
        <translation>abgeschnitten</translation>
    </message>
    <message>
        <source>damaged</source>
        <translation>beschädigt</translation>
    </message>
    <message>
        <source>discard</source>
        <translation>freigeben</translation>
    </message>
    <message>
        <source>doubtful</source>
        <translation>zweifelhaft</translation>
    </message>
    <message>
        <source>earlier</source>
        <translation>früher</translation>
    </message>
    <message>
        <source>encode</source>
        <translation>neu kodieren</translation>
    </message>
    <message>
        <source>examining</source>
        <translation>untersuchen</translation>
    </message>
    <message>
        <source>faster</source>
        <translation>schneller</translation>
    </message>
    <message>
        <source>fetching</source>
        <translation>holen</translation>
    </message>
    <message>
        <source>fingerprint</source>
        <translation>Fingerabdruck</translation>
    </message>
    <message>
        <source>folder</source>
        <translation>Ordner</translation>
    </message>
    <message>
        <source>from a healthy copy</source>
        <translation>aus einer gesunden Kopie</translation>
    </message>
    <message>
        <source>genuine</source>
        <translation>echt</translation>
    </message>
    <message>
        <source>held</source>
        <translation>vorhanden</translation>
    </message>
    <message>
        <source>here</source>
        <translation>hier</translation>
    </message>
    <message>
        <source>kept as it is</source>
        <translation>behalten, wie es ist</translation>
    </message>
    <message>
        <source>later</source>
        <translation>später</translation>
    </message>
    <message>
        <source>longer</source>
        <translation>länger</translation>
    </message>
    <message>
        <source>lossless</source>
        <translation>verlustfrei</translation>
    </message>
    <message>
        <source>louder</source>
        <translation>lauter</translation>
    </message>
    <message>
        <source>missing</source>
        <translation>fehlt</translation>
    </message>
    <message>
        <source>move</source>
        <translation>verschieben</translation>
    </message>
    <message>
        <source>moved</source>
        <translation>verschoben</translation>
    </message>
    <message>
        <source>new</source>
        <translation>neu</translation>
    </message>
    <message>
        <source>not taken in</source>
        <translation>nicht aufgenommen</translation>
    </message>
    <message>
        <source>number</source>
        <translation>Nummer</translation>
    </message>
    <message>
        <source>payload</source>
        <translation>Audiodaten</translation>
    </message>
    <message>
        <source>performer</source>
        <translation>Künstler</translation>
    </message>
    <message>
        <source>planning</source>
        <translation>planen</translation>
    </message>
    <message>
        <source>put together from damaged copies</source>
        <translation>aus beschädigten Kopien zusammengesetzt</translation>
    </message>
    <message>
        <source>quieter</source>
        <translation>leiser</translation>
    </message>
    <message>
        <source>reading</source>
        <translation>lesen</translation>
    </message>
    <message>
        <source>repair</source>
        <translation>zusammensetzen</translation>
    </message>
    <message>
        <source>repaired</source>
        <translation>zusammengesetzt</translation>
    </message>
    <message>
        <source>replace</source>
        <translation>ersetzen</translation>
    </message>
    <message>
        <source>replace-list</source>
        <translation>Liste ersetzen</translation>
    </message>
    <message>
        <source>replaced</source>
        <translation>ersetzt</translation>
    </message>
    <message>
        <source>repoint</source>
        <translation>umlenken</translation>
    </message>
    <message>
        <source>restore</source>
        <translation>wiederherstellen</translation>
    </message>
    <message>
        <source>restored</source>
        <translation>wiederhergestellt</translation>
    </message>
    <message>
        <source>retag</source>
        <translation>Tags schreiben</translation>
    </message>
    <message>
        <source>retire</source>
        <translation>aussondern</translation>
    </message>
    <message>
        <source>retired</source>
        <translation>ausgesondert</translation>
    </message>
    <message>
        <source>rewrite</source>
        <translation>neu schreiben</translation>
    </message>
    <message>
        <source>rip</source>
        <translation>von Disc nehmen</translation>
    </message>
    <message>
        <source>salvage</source>
        <translation>bergen</translation>
    </message>
    <message>
        <source>salvaged</source>
        <translation>geborgen</translation>
    </message>
    <message>
        <source>shorter</source>
        <translation>kürzer</translation>
    </message>
    <message>
        <source>silent-change</source>
        <translation>stille Änderung</translation>
    </message>
    <message>
        <source>slower</source>
        <translation>langsamer</translation>
    </message>
    <message>
        <source>survey</source>
        <translation>Erfassung</translation>
    </message>
    <message>
        <source>tags</source>
        <translation>Tags</translation>
    </message>
    <message>
        <source>tags-edited</source>
        <translation>Tags bearbeitet</translation>
    </message>
    <message>
        <source>there</source>
        <translation>dort</translation>
    </message>
    <message>
        <source>title</source>
        <translation>Titel</translation>
    </message>
    <message>
        <source>track</source>
        <translation>Titel</translation>
    </message>
    <message>
        <source>transcoded</source>
        <translation>umkodiert</translation>
    </message>
    <message>
        <source>truncated</source>
        <translation>abgeschnitten</translation>
    </message>
    <message>
        <source>undetermined</source>
        <translation>unbestimmt</translation>
    </message>
    <message>
        <source>unreadable</source>
        <translation>nicht lesbar</translation>
    </message>
    <message>
        <source>verify</source>
        <translation>Prüfung</translation>
    </message>
    <message>
        <source>without the bytes that are no audio</source>
        <translation>ohne die Bytes, die kein Ton sind</translation>
    </message>
    <message>
        <source>write-list</source>
        <translation>Liste schreiben</translation>
    </message>
    <message>
        <source>write-off</source>
        <translation>abschreiben</translation>
    </message>
    <message>
        <source>writing</source>
        <translation>schreiben</translation>
    </message>
    <message>
        <source>written</source>
        <translation>geschrieben</translation>
    </message>
    <message>
        <source>%1 (No. %2)</source>
        <translation>%1 (Nr. %2)</translation>
    </message>
    <message>
        <source>%1 dB %2</source>
        <translation>%1 dB %2</translation>
    </message>
    <message>
        <source>%1 ms %2%3</source>
        <translation>%1 ms %2%3</translation>
    </message>
    <message>
        <source>lossless claims, doubtful or worse</source>
        <translation>angeblich verlustfrei, zweifelhaft oder schlechter</translation>
    </message>
    <message>
        <source>on %1</source>
        <translation>auf %1</translation>
    </message>
    <message>
        <source>under the limit, better copy elsewhere</source>
        <translation>unter der Grenze, anderswo eine bessere Kopie</translation>
    </message>
    <message>
        <source>archive</source>
        <translation>Archiv</translation>
    </message>
    <message>
        <source>open</source>
        <translation>offen</translation>
    </message>
    <message>
        <source>plain</source>
        <translation>einfach</translation>
    </message>
    <message>
        <source>player</source>
        <translation>Abspieler</translation>
    </message>
    <message>
        <source>small</source>
        <translation>klein</translation>
    </message>
    <message>
        <source>steady</source>
        <translation>gleichmäßig</translation>
    </message>
    <message>
        <source>taster</source>
        <translation>Kostprobe</translation>
    </message>
    <message>
        <source>telephone</source>
        <translation>Telefon</translation>
    </message>
    <message>
        <source> Paths and names are left out; a holding keeps its number.</source>
        <translation> Pfade und Namen sind weggelassen; eine Datei behält ihre Nummer.</translation>
    </message>
    <message>
        <source>%1 is called %2 now.</source>
        <translation>%1 heißt jetzt %2.</translation>
    </message>
    <message>
        <source>%1 kHz</source>
        <translation>%1 kHz</translation>
    </message>
    <message>
        <source>%1 kbit/s</source>
        <translation>%1 kbit/s</translation>
    </message>
    <message>
        <source>%1 missing, %2 of them held nowhere else.</source>
        <translation>%1 nicht da, nirgends sonst vorhanden: %2.</translation>
    </message>
    <message>
        <source>%1 no longer what was recorded.</source>
        <translation>%1 nicht mehr, was verzeichnet war.</translation>
    </message>
    <message>
        <source>%1 not decode whole, or cannot be opened as audio.</source>
        <translation>%1 nicht ganz dekodieren oder nicht als Ton öffnen.</translation>
    </message>
    <message>
        <source>%1 not, or perhaps not, what the file states.</source>
        <translation>%1 nicht oder vielleicht nicht, was angegeben ist.</translation>
    </message>
    <message>
        <source>%1 of %2</source>
        <translation>%1 von %2</translation>
    </message>
    <message>
        <source>%1 of %2 read within a year</source>
        <translation>%1 von %2 binnen eines Jahres gelesen</translation>
    </message>
    <message>
        <source>%1 of copies; following the advice frees %2.</source>
        <translation>%1 von Kopien; nach dem Rat würden %2 frei.</translation>
    </message>
    <message>
        <source>%1 of the other catalogue %2 known here as there.</source>
        <translation>Vom anderen Katalog %2 hier so bekannt wie dort: %1.</translation>
    </message>
    <message>
        <source>%1 was forgotten. Nothing on it was changed.</source>
        <translation>%1 wurde vergessen. Nichts darauf wurde geändert.</translation>
    </message>
    <message>
        <source>%1, %2, %3 of audio on %4; %5 held once only, %6 examined.</source>
        <translation>%1, %2, %3 Ton auf %4; nur einmal da: %5, untersucht: %6.</translation>
    </message>
    <message>
        <source>, %1 kbit/s</source>
        <translation>, %1 kbit/s</translation>
    </message>
    <message>
        <source>, away</source>
        <translation>, nicht da</translation>
    </message>
    <message>
        <source>, kept as it is</source>
        <translation>, behalten, wie es ist</translation>
    </message>
    <message>
        <source>, lossless</source>
        <translation>, verlustfrei</translation>
    </message>
    <message>
        <source>, not ended</source>
        <translation>, nicht beendet</translation>
    </message>
    <message>
        <source>, surveyed %1</source>
        <translation>, erfasst am %1</translation>
    </message>
    <message>
        <source>180 days</source>
        <translation>180 Tage</translation>
    </message>
    <message>
        <source>30 days</source>
        <translation>30 Tage</translation>
    </message>
    <message>
        <source>Advice</source>
        <translation>Rat</translation>
    </message>
    <message>
        <source>All that was examined decodes whole.</source>
        <translation>Alles Untersuchte lässt sich ganz dekodieren.</translation>
    </message>
    <message>
        <source>All that was read again is what was recorded.</source>
        <translation>Alles neu Gelesene ist, was verzeichnet war.</translation>
    </message>
    <message>
        <source>And %1: the forms CSV and JSON list all.</source>
        <translation>Und %1: die Formen CSV und JSON führen alle auf.</translation>
    </message>
    <message>
        <source>At</source>
        <translation>Bei</translation>
    </message>
    <message>
        <source>Check</source>
        <translation>Prüfung</translation>
    </message>
    <message>
        <source>Claims</source>
        <translation>Angaben</translation>
    </message>
    <message>
        <source>Condition</source>
        <translation>Zustand</translation>
    </message>
    <message>
        <source>Copies</source>
        <translation>Kopien</translation>
    </message>
    <message>
        <source>Cut along the lines. The number is the volume&apos;s own and is never given to another.</source>
        <translation>An den Linien schneiden. Die Nummer gehört dem Datenträger allein und wird nie einem anderen gegeben.</translation>
    </message>
    <message>
        <source>Damage</source>
        <translation>Schäden</translation>
    </message>
    <message>
        <source>Drifted</source>
        <translation>Abgewichen</translation>
    </message>
    <message>
        <source>Fixity</source>
        <translation>Unversehrtheit</translation>
    </message>
    <message>
        <source>Found</source>
        <translation>Gefunden</translation>
    </message>
    <message>
        <source>Held elsewhere</source>
        <translation>Anderswo da</translation>
    </message>
    <message>
        <source>Holding</source>
        <translation>Datei</translation>
    </message>
    <message>
        <source>Holdings of each volume: held once, held more than once, missing</source>
        <translation>Dateien jedes Datenträgers: einmal da, mehrfach da, fehlend</translation>
    </message>
    <message>
        <source>How</source>
        <translation>Wie</translation>
    </message>
    <message>
        <source>How long ago the holdings of each volume were last read from end to end</source>
        <translation>Wie lange es her ist, dass die Dateien jedes Datenträgers ganz gelesen wurden</translation>
    </message>
    <message>
        <source>How many</source>
        <translation>Wie viele</translation>
    </message>
    <message>
        <source>Labels for the drives</source>
        <translation>Etiketten für die Laufwerke</translation>
    </message>
    <message>
        <source>Last there</source>
        <translation>Zuletzt da</translation>
    </message>
    <message>
        <source>Made by Sober Archivist on %1, from what was last read of each volume.%2</source>
        <translation>Gemacht von Sober Archivist am %1, nach dem, was zuletzt von jedem Datenträger gelesen wurde.%2</translation>
    </message>
    <message>
        <source>Missing</source>
        <translation>Fehlendes</translation>
    </message>
    <message>
        <source>No recording was found twice.</source>
        <translation>Keine Aufnahme wurde doppelt gefunden.</translation>
    </message>
    <message>
        <source>No transfer was proven.</source>
        <translation>Keine Übertragung wurde nachgewiesen.</translation>
    </message>
    <message>
        <source>Nothing that is recorded is missing.</source>
        <translation>Nichts Verzeichnetes fehlt.</translation>
    </message>
    <message>
        <source>Nothing that was examined contradicts what its file states.</source>
        <translation>Nichts Untersuchtes widerspricht dem, was die Datei angibt.</translation>
    </message>
    <message>
        <source>Proven</source>
        <translation>Nachgewiesen</translation>
    </message>
    <message>
        <source>Proven transfers</source>
        <translation>Nachgewiesene Übertragungen</translation>
    </message>
    <message>
        <source>Read</source>
        <translation>Gelesen</translation>
    </message>
    <message>
        <source>Set</source>
        <translation>Satz</translation>
    </message>
    <message>
        <source>Size</source>
        <translation>Größe</translation>
    </message>
    <message>
        <source>Sound up to</source>
        <translation>Klang bis</translation>
    </message>
    <message>
        <source>States</source>
        <translation>Gibt an</translation>
    </message>
    <message>
        <source>Stopped. What was taken in stays; take it in again, and it goes on from there.</source>
        <translation>Angehalten. Was aufgenommen wurde, bleibt; nehmen Sie ihn wieder auf, und es geht dort weiter.</translation>
    </message>
    <message>
        <source>Sure</source>
        <translation>Sicher</translation>
    </message>
    <message>
        <source>The catalogue is what it was when it was saved. What it was before is kept as %1. Survey the volumes to see what is there now.</source>
        <translation>Der Katalog ist, was er beim Sichern war. Was er vorher war, ist als %1 behalten. Erfassen Sie die Datenträger, um zu sehen, was jetzt da ist.</translation>
    </message>
    <message>
        <source>The catalogue was saved as %1.</source>
        <translation>Der Katalog wurde als %1 gesichert.</translation>
    </message>
    <message>
        <source>The labels were written to %1. Print them from a browser.</source>
        <translation>Die Etiketten wurden nach %1 geschrieben. Drucken Sie sie aus einem Browser.</translation>
    </message>
    <message>
        <source>The report was stopped.</source>
        <translation>Der Bericht wurde angehalten.</translation>
    </message>
    <message>
        <source>The report was written to %1.</source>
        <translation>Der Bericht wurde nach %1 geschrieben.</translation>
    </message>
    <message>
        <source>This volume is not catalogued any more.</source>
        <translation>Dieser Datenträger ist nicht mehr erfasst.</translation>
    </message>
    <message>
        <source>Transfer</source>
        <translation>Übertragung</translation>
    </message>
    <message>
        <source>Verdict</source>
        <translation>Urteil</translation>
    </message>
    <message>
        <source>Volume</source>
        <translation>Datenträger</translation>
    </message>
    <message>
        <source>What</source>
        <translation>Was</translation>
    </message>
    <message>
        <source>What following the advice frees, by how the copies are the same</source>
        <translation>Was nach dem Rat frei würde, danach, worin die Kopien gleich sind</translation>
    </message>
    <message>
        <source>What is known of the collection</source>
        <translation>Was von der Sammlung bekannt ist</translation>
    </message>
    <message>
        <source>What the files state against the frequency up to which there is sound</source>
        <translation>Was die Dateien angeben, gegen die Frequenz, bis zu der Klang da ist</translation>
    </message>
    <message>
        <source>What was found</source>
        <translation>Was gefunden wurde</translation>
    </message>
    <message>
        <source>Where to</source>
        <translation>Wohin</translation>
    </message>
    <message>
        <source>Why</source>
        <translation>Warum</translation>
    </message>
    <message>
        <source>a year</source>
        <translation>ein Jahr</translation>
    </message>
    <message>
        <source>audio altered</source>
        <translation>Ton verändert</translation>
    </message>
    <message>
        <source>cannot be opened as audio</source>
        <translation>lässt sich nicht als Ton öffnen</translation>
    </message>
    <message>
        <source>claims that the evidence contradicts</source>
        <translation>Angaben, denen der Befund widerspricht</translation>
    </message>
    <message>
        <source>held more than once</source>
        <translation>mehrfach da</translation>
    </message>
    <message>
        <source>held once</source>
        <translation>einmal da</translation>
    </message>
    <message>
        <source>holding %1 of %2</source>
        <translation>Datei %1 von %2</translation>
    </message>
    <message>
        <source>holdings that are no longer what was recorded</source>
        <translation>Dateien, die nicht mehr sind, was verzeichnet war</translation>
    </message>
    <message>
        <source>holdings that do not decode whole or cannot be opened</source>
        <translation>Dateien, die sich nicht ganz dekodieren oder nicht öffnen lassen</translation>
    </message>
    <message>
        <source>keep</source>
        <translation>behalten</translation>
    </message>
    <message>
        <source>left out</source>
        <translation>weggelassen</translation>
    </message>
    <message>
        <source>longer ago</source>
        <translation>länger her</translation>
    </message>
    <message>
        <source>missing holdings</source>
        <translation>fehlende Dateien</translation>
    </message>
    <message>
        <source>not known</source>
        <translation>nicht bekannt</translation>
    </message>
    <message>
        <source>references of players that lead nowhere</source>
        <translation>Verweise von Abspielern, die nirgendwohin führen</translation>
    </message>
    <message>
        <source>sets of copies</source>
        <translation>Sätze von Kopien</translation>
    </message>
    <message>
        <source>silent change</source>
        <translation>stille Änderung</translation>
    </message>
    <message>
        <source>tags edited</source>
        <translation>Tags bearbeitet</translation>
    </message>
    <message>
        <source>yours to decide</source>
        <translation>entscheiden Sie</translation>
    </message>
    <message>
        <source>checksum-mismatch</source>
        <translation>nicht die angegebenen Abtastwerte</translation>
    </message>
    <message>
        <source>clipped</source>
        <translation>übersteuert</translation>
    </message>
    <message>
        <source>dropout</source>
        <translation>setzt aus</translation>
    </message>
    <message>
        <source>form-changes</source>
        <translation>wechselt die Form</translation>
    </message>
    <message>
        <source>gapless</source>
        <translation>irrt über die Enden</translation>
    </message>
    <message>
        <source>junk</source>
        <translation>Fremdes neben dem Ton</translation>
    </message>
    <message>
        <source>length-mismatch</source>
        <translation>länger als angegeben</translation>
    </message>
    <message>
        <source>odd-length</source>
        <translation>endet in einem Abtastwert</translation>
    </message>
    <message>
        <source>silence</source>
        <translation>stumm</translation>
    </message>
    <message>
        <source>stuck</source>
        <translation>steht still</translation>
    </message>
    <message>
        <source>unstated-length</source>
        <translation>gibt keine Länge an</translation>
    </message>
    <message>
        <source>yourself</source>
        <translation>Ihnen selbst</translation>
    </message>
    <message>
        <source>No session of a desktop or of systemd was there to be asked.</source>
        <translation>Es war keine Sitzung eines Desktops oder von systemd da, die man hätte fragen können.</translation>
    </message>
    <message>
        <source>%1 got the same</source>
        <translation>%1 lasen dasselbe</translation>
    </message>
    <message>
        <source>%1 known only there: lists are read where their volume is at hand.</source>
        <translation>%1 nur dort bekannt: Listen werden gelesen, wo ihr Datenträger da ist.</translation>
    </message>
    <message>
        <source>no longer among what comes along</source>
        <translation>nicht mehr unter dem, was mitkommt</translation>
    </message>
    <message>
        <source>nobody has reported it</source>
        <translation>niemand hat es gemeldet</translation>
    </message>
    <message>
        <source>others differ</source>
        <translation>andere weichen ab</translation>
    </message>
    <message>
        <source>, %1 entries in its topmost folder</source>
        <translation>, %1 Einträge im obersten Ordner</translation>
    </message>
    <message>
        <source>, files of up to %1</source>
        <translation>, Dateien bis zu %1</translation>
    </message>
    <message>
        <source>, times of writing to %1 s</source>
        <translation>, Schreibzeiten auf %1 s genau</translation>
    </message>
    <message>
        <source>its folders leave its name no room in the longest path that the player reads</source>
        <translation>seine Ordner lassen seinem Namen keinen Platz im längsten Pfad, den der Player liest</translation>
    </message>
    <message>
        <source>names of up to %1 %2</source>
        <translation>Namen bis zu %1 %2</translation>
    </message>
    <message>
        <source>the bits of %1 of %2 do not come out even, those of all others do: they were changed, perhaps</source>
        <translation>Bits, die nicht aufgehen, während sie sonst überall aufgehen: in %1 (geprüft: %2); vielleicht wurden sie verändert</translation>
    </message>
    <message>
        <source>it runs about %1 % faster than when it was encoded</source>
        <translation>es läuft etwa %1 % schneller als zu der Zeit, als es kodiert wurde</translation>
    </message>
    <message>
        <source>it runs about %1 % slower than when it was encoded</source>
        <translation>es läuft etwa %1 % langsamer als zu der Zeit, als es kodiert wurde</translation>
    </message>
    <message>
        <source>%1 stands there already, and is not what its map is of.</source>
        <translation>%1 steht dort schon und ist nicht das, wovon seine Karte handelt.</translation>
    </message>
    <message>
        <source>%1 cannot be put back yet: its folder %2 is still in the trash.</source>
        <translation>%1 kann noch nicht zurück: sein Ordner %2 liegt noch im Papierkorb.</translation>
    </message>
    <message>
        <source>%1 is no folder any more.</source>
        <translation>%1 ist kein Ordner mehr.</translation>
    </message>
    <message>
        <source>%1 is not empty any more; it was put back.</source>
        <translation>%1 ist nicht mehr leer; der Ordner ist wieder an seinem Platz.</translation>
    </message>
    <message>
        <source>%1 is not empty; it stays.</source>
        <translation>%1 ist nicht leer; der Ordner bleibt.</translation>
    </message>
    <message>
        <source>cleared away</source>
        <translation>weggeräumt</translation>
    </message>
    <message>
        <source>clear-folder</source>
        <translation>Ordner wegräumen</translation>
    </message>
    <message>
        <source>Carrying along was interrupted.</source>
        <translation>Das Mitnehmen wurde abgebrochen.</translation>
    </message>
    <message>
        <source>Linux on %1 with the C library %2 or newer</source>
        <translation>Linux auf %1 mit der C-Bibliothek %2 oder neuer</translation>
    </message>
    <message>
        <source>The program cannot be carried along: %1 or what belongs to it is not there.</source>
        <translation>Das Programm kann nicht mitgenommen werden: %1 oder was dazugehört ist nicht da.</translation>
    </message>
    <message>
        <source>The program cannot be carried along: which libraries it takes could not be found out (ldd).</source>
        <translation>Das Programm kann nicht mitgenommen werden: Welche Bibliotheken es braucht, war nicht herauszufinden (ldd).</translation>
    </message>
    <message>
        <source>To wait on the docket here: %1.</source>
        <translation>Auf den Laufzettel hier kommen: %1.</translation>
    </message>
    <message>
        <source>entries of its ledger that have not come to their end</source>
        <translation>Einträge seines Protokolls, die nicht zu Ende gekommen sind</translation>
    </message>
    <message>
        <source>entry of its ledger that has not come to its end</source>
        <translation>Eintrag seines Protokolls, der nicht zu Ende gekommen ist</translation>
    </message>
    <message>
        <source>To stand in the ledger here: %1 of what was done there.</source>
        <translation>Hier ins Protokoll: %1 dessen, was dort getan wurde.</translation>
    </message>
    <message>
        <source>with other content before they were first seen here</source>
        <translation>mit anderem Inhalt, bevor sie hier zum ersten Mal gesehen wurden</translation>
    </message>
    <message>
        <source>, with the catalogue %1</source>
        <translation>, mit dem Katalog %1</translation>
    </message>
    <message>
        <source>a file system that cannot be read</source>
        <translation>ein Dateisystem, das nicht lesbar ist</translation>
    </message>
    <message>
        <source>%1 was not looked into: its process was ended from outside. It is tried again the next time.</source>
        <translation>In %1 wurde nicht hineingesehen: der Prozess dafür wurde von außen beendet. Beim nächsten Mal wird es wieder versucht.</translation>
    </message>
</context>
<context>
    <name>counted</name>
    <message numerus="yes">
        <source>%n acceptance</source>
        <translation>
            <numerusform>%n Annahme</numerusform>
            <numerusform>%n Annahmen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n action</source>
        <translation>
            <numerusform>%n Maßnahme</numerusform>
            <numerusform>%n Maßnahmen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n action put in order</source>
        <translation>
            <numerusform>%n Maßnahme in Ordnung gebracht</numerusform>
            <numerusform>%n Maßnahmen in Ordnung gebracht</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n action waits there to be settled</source>
        <translation>
            <numerusform>%n Maßnahme, die dort auf Ordnung wartet</numerusform>
            <numerusform>%n Maßnahmen, die dort auf Ordnung warten</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n action was</source>
        <translation>
            <numerusform>%n Maßnahme wurde</numerusform>
            <numerusform>%n Maßnahmen wurden</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n artist</source>
        <translation>
            <numerusform>%n Künstler</numerusform>
            <numerusform>%n Künstler</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n attempt</source>
        <translation>
            <numerusform>%n Versuch</numerusform>
            <numerusform>%n Versuchen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n broken reference</source>
        <translation>
            <numerusform>%n zerbrochener Verweis von Abspielern</numerusform>
            <numerusform>%n zerbrochene Verweise von Abspielern</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n byte</source>
        <translation>
            <numerusform>%n Byte</numerusform>
            <numerusform>%n Bytes</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n candidate</source>
        <translation>
            <numerusform>%n Anwärter</numerusform>
            <numerusform>%n Anwärter</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n channel</source>
        <translation>
            <numerusform>%n Kanal</numerusform>
            <numerusform>%n Kanäle</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n copy</source>
        <translation>
            <numerusform>%n Kopie</numerusform>
            <numerusform>%n Kopien</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n does not fit</source>
        <translation>
            <numerusform>%n passt nicht</numerusform>
            <numerusform>%n passen nicht</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n entry</source>
        <translation>
            <numerusform>%n Eintrag</numerusform>
            <numerusform>%n Einträge</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n excerpt</source>
        <translation>
            <numerusform>%n Hörprobe</numerusform>
            <numerusform>%n Hörproben</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n file</source>
        <translation>
            <numerusform>%n Datei</numerusform>
            <numerusform>%n Dateien</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n file has</source>
        <translation>
            <numerusform>%n Datei hat</numerusform>
            <numerusform>%n Dateien haben</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n file is</source>
        <translation>
            <numerusform>%n Datei ist</numerusform>
            <numerusform>%n Dateien sind</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n find</source>
        <translation>
            <numerusform>%n Fundstück</numerusform>
            <numerusform>%n Fundstücke</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n frame</source>
        <translation>
            <numerusform>%n Frame</numerusform>
            <numerusform>%n Frames</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n holding</source>
        <translation>
            <numerusform>%n Datei</numerusform>
            <numerusform>%n Dateien</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n holding waits</source>
        <translation>
            <numerusform>%n Datei wartet</numerusform>
            <numerusform>%n Dateien warten</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n leads</source>
        <translation>
            <numerusform>%n führt</numerusform>
            <numerusform>%n führen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n line</source>
        <translation>
            <numerusform>%n Zeile</numerusform>
            <numerusform>%n Zeilen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n list</source>
        <translation>
            <numerusform>%n Liste</numerusform>
            <numerusform>%n Listen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n missing holding</source>
        <translation>
            <numerusform>%n fehlende Datei</numerusform>
            <numerusform>%n fehlende Dateien</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n page</source>
        <translation>
            <numerusform>%n Seite</numerusform>
            <numerusform>%n Seiten</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n place</source>
        <translation>
            <numerusform>%n Ort</numerusform>
            <numerusform>%n Orte</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n policy</source>
        <translation>
            <numerusform>%n Richtlinie</numerusform>
            <numerusform>%n Richtlinien</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n proposal</source>
        <translation>
            <numerusform>%n Vorschlag</numerusform>
            <numerusform>%n Vorschläge</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n reading</source>
        <translation>
            <numerusform>%n Lesung</numerusform>
            <numerusform>%n Lesungen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n reference</source>
        <translation>
            <numerusform>%n Verweis</numerusform>
            <numerusform>%n Verweise</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n reference of a player</source>
        <translation>
            <numerusform>%n Verweis eines Abspielers</numerusform>
            <numerusform>%n Verweise von Abspielern</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n replacement</source>
        <translation>
            <numerusform>%n Ersetzung</numerusform>
            <numerusform>%n Ersetzungen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n sample</source>
        <translation>
            <numerusform>%n Abtastwert</numerusform>
            <numerusform>%n Abtastwerte</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n sector</source>
        <translation>
            <numerusform>%n Sektor</numerusform>
            <numerusform>%n Sektoren</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n set</source>
        <translation>
            <numerusform>%n Satz</numerusform>
            <numerusform>%n Sätze</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n standing list</source>
        <translation>
            <numerusform>%n ständige Liste</numerusform>
            <numerusform>%n ständige Listen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n stands</source>
        <translation>
            <numerusform>%n steht</numerusform>
            <numerusform>%n stehen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n thing is not as it has to be</source>
        <translation>
            <numerusform>%n Sache ist nicht, wie sie sein muss</numerusform>
            <numerusform>%n Dinge sind nicht, wie sie sein müssen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n track</source>
        <translation>
            <numerusform>%n Titel</numerusform>
            <numerusform>%n Titel</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n transfer from it or to it is not at its end</source>
        <translation>
            <numerusform>%n Übertragung von oder nach dort ist nicht zu Ende</numerusform>
            <numerusform>%n Übertragungen von oder nach dort sind nicht zu Ende</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n volume</source>
        <translation>
            <numerusform>%n Datenträger</numerusform>
            <numerusform>%n Datenträger</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n holding does</source>
        <translation>
            <numerusform>%n Datei lässt sich</numerusform>
            <numerusform>%n Dateien lassen sich</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n holding is</source>
        <translation>
            <numerusform>%n Datei ist</numerusform>
            <numerusform>%n Dateien sind</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n more line</source>
        <translation>
            <numerusform>%n weitere Zeile</numerusform>
            <numerusform>%n weitere Zeilen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n other</source>
        <translation>
            <numerusform>%n anderer</numerusform>
            <numerusform>%n andere</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n player</source>
        <translation>
            <numerusform>%n Abspieler</numerusform>
            <numerusform>%n Abspieler</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n frame part</source>
        <translation>
            <numerusform>%n Teil eines Rahmens</numerusform>
            <numerusform>%n Teile von Rahmen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n folder</source>
        <translation>
            <numerusform>%n Ordner</numerusform>
            <numerusform>%n Ordner</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>language</name>
    <message>
        <source>en</source>
        <extracomment>The code of the language that this is the translation into, of ISO 639.</extracomment>
        <translation>de</translation>
    </message>
</context>
<context>
    <name>sober::app::ArrivalChart</name>
    <message>
        <source>%1 kHz</source>
        <translation>%1 kHz</translation>
    </message>
    <message>
        <source>its bandwidth was not measured</source>
        <translation>ihre Bandbreite wurde nicht gemessen</translation>
    </message>
    <message>
        <source>not measured</source>
        <translation>nicht gemessen</translation>
    </message>
    <message>
        <source>%1: %2; held: %3</source>
        <translation>%1: %2; vorhanden: %3</translation>
    </message>
    <message>
        <source>nothing</source>
        <translation>nichts</translation>
    </message>
</context>
<context>
    <name>sober::app::BandChart</name>
    <message>
        <source>Every volume as a band of its folders, by holdings and worst condition</source>
        <translation>Jeder Datenträger als Band seiner Ordner, nach Dateien und schlechtestem Zustand</translation>
    </message>
    <message>
        <source>Nothing is catalogued yet. Drop a folder or a drive on this window, or press Ctrl+N: a survey only reads.</source>
        <translation>Noch ist nichts erfasst. Ziehen Sie einen Ordner oder ein Laufwerk auf dieses Fenster oder drücken Sie Strg+N: Erfassen liest nur.</translation>
    </message>
    <message>
        <source>nothing known against it</source>
        <translation>nichts spricht dagegen</translation>
    </message>
    <message>
        <source>holds identical copies</source>
        <translation>enthält gleiche Kopien</translation>
    </message>
    <message>
        <source>not what it says</source>
        <translation>nicht, was es angibt</translation>
    </message>
    <message>
        <source>something is missing</source>
        <translation>etwas fehlt</translation>
    </message>
    <message>
        <source>something cannot be read</source>
        <translation>etwas ist nicht lesbar</translation>
    </message>
    <message>
        <source>away · %1</source>
        <translation>nicht da · %1</translation>
    </message>
    <message>
        <source>(top folder)</source>
        <translation>(oberster Ordner)</translation>
    </message>
    <message>
        <source>
%1 held more than once</source>
        <translation>
%1 mehrfach vorhanden</translation>
    </message>
    <message>
        <source>
%1 doubtful or transcoded</source>
        <translation>
%1 zweifelhaft oder umkodiert</translation>
    </message>
    <message>
        <source>
%1 missing</source>
        <translation>
%1 fehlen</translation>
    </message>
    <message>
        <source>
%1 cannot be read</source>
        <translation>
%1 nicht lesbar</translation>
    </message>
</context>
<context>
    <name>sober::app::BlockMap</name>
    <message>
        <source>Blocks of the file that are not what was recorded</source>
        <translation>Blöcke der Datei, die nicht sind, was verzeichnet war</translation>
    </message>
    <message>
        <source>No block is known of it.</source>
        <translation>Von ihr ist kein Block bekannt.</translation>
    </message>
    <message>
        <source>%1 of %2 blocks of 1 MiB differ</source>
        <translation>%1 von %2 Blöcken zu 1 MiB weichen ab</translation>
    </message>
    <message>
        <source>Block %1</source>
        <translation>Block %1</translation>
    </message>
    <message>
        <source>Blocks %1 to %2</source>
        <translation>Blöcke %1 bis %2</translation>
    </message>
    <message>
        <source>%1: not what was recorded</source>
        <translation>%1: nicht wie verzeichnet</translation>
    </message>
    <message>
        <source>%1: as recorded</source>
        <translation>%1: wie verzeichnet</translation>
    </message>
</context>
<context>
    <name>sober::app::ByteSheet</name>
    <message>
        <source>The bytes, and what they are</source>
        <translation>Die Bytes und was sie sind</translation>
    </message>
    <message>
        <source>byte %1</source>
        <translation>Byte %1</translation>
    </message>
    <message>
        <source>%1: %2, bytes %3 to %4</source>
        <translation>%1: %2, Bytes %3 bis %4</translation>
    </message>
</context>
<context>
    <name>sober::app::BytesWindow</name>
    <message>
        <source>Bytes of %1</source>
        <translation>Bytes von %1</translation>
    </message>
    <message>
        <source>Place in the image</source>
        <translation>Stelle im Abbild</translation>
    </message>
    <message>
        <source>What is looked for</source>
        <translation>Wonach gesucht wird</translation>
    </message>
    <message>
        <source>Text</source>
        <translation>Text</translation>
    </message>
    <message>
        <source>Bytes, as hexadecimal digits</source>
        <translation>Bytes als hexadezimale Ziffern</translation>
    </message>
    <message>
        <source>Look for</source>
        <translation>Suchen</translation>
    </message>
    <message>
        <source>Look for, from here on</source>
        <translation>Ab hier suchen</translation>
    </message>
    <message>
        <source>Byte to go to</source>
        <translation>Byte, zu dem es gehen soll</translation>
    </message>
    <message>
        <source>Go to byte</source>
        <translation>Zum Byte</translation>
    </message>
    <message>
        <source>Stop</source>
        <translation>Anhalten</translation>
    </message>
    <message>
        <source>Stopped.</source>
        <translation>Angehalten.</translation>
    </message>
    <message>
        <source>There is nothing to look for.</source>
        <translation>Es ist nichts angegeben, was zu suchen wäre.</translation>
    </message>
    <message>
        <source>These are no hexadecimal digits of bytes.</source>
        <translation>Das sind keine hexadezimalen Ziffern von Bytes.</translation>
    </message>
    <message>
        <source>Looking through the image from byte %1 on…</source>
        <translation>Das Abbild wird ab Byte %1 durchsucht…</translation>
    </message>
    <message>
        <source>Looking: %1 of %2 gone by</source>
        <translation>Suche: %1 von %2 durchgesehen</translation>
    </message>
    <message>
        <source>It stands nowhere from there on.</source>
        <translation>Von dort an steht es nirgends.</translation>
    </message>
    <message>
        <source>It stands at byte %1.</source>
        <translation>Es steht bei Byte %1.</translation>
    </message>
</context>
<context>
    <name>sober::app::CarryWindow</name>
    <message>
        <source>Looking how large it is…</source>
        <translation>Die Größe wird ermittelt…</translation>
    </message>
    <message>
        <source>Place</source>
        <translation>Ort</translation>
    </message>
    <message>
        <source>Package</source>
        <translation>Paket</translation>
    </message>
    <message>
        <source>Carry along</source>
        <translation>Mitnehmen</translation>
    </message>
    <message>
        <source>Carry the catalogue along</source>
        <translation>Den Katalog mitnehmen</translation>
    </message>
    <message>
        <source>What carrying along is</source>
        <translation>Was Mitnehmen heißt</translation>
    </message>
    <message>
        <source>The catalogue, its excerpts and what these windows keep are written into a folder &quot;%1&quot; on a stick or drive. There they are opened on another machine by one command (sh start), and what you do is kept on the stick. At home, take it in again by Collection, Take another catalogue in.</source>
        <translation>Der Katalog, seine Hörproben und was diese Fenster sich merken werden in einen Ordner „%1“ auf einen Stick oder ein Laufwerk geschrieben. Dort öffnet sie ein Befehl (sh start) an einem anderen Rechner, und was Sie tun, bleibt auf dem Stick. Zu Hause nehmen Sie es mit Sammlung, Anderen Katalog aufnehmen wieder auf.</translation>
    </message>
    <message>
        <source>&amp;Place…</source>
        <translation>&amp;Ort…</translation>
    </message>
    <message>
        <source>Pac&amp;kage…</source>
        <translation>&amp;Paket…</translation>
    </message>
    <message>
        <source>It takes about %1.</source>
        <translation>Es braucht etwa %1.</translation>
    </message>
    <message>
        <source>Carry the catalogue along on</source>
        <translation>Den Katalog mitnehmen auf</translation>
    </message>
    <message>
        <source>The program&apos;s Debian package</source>
        <translation>Das Debian-Paket des Programms</translation>
    </message>
    <message>
        <source>none chosen yet</source>
        <translation>noch keiner gewählt</translation>
    </message>
    <message>
        <source>The p&amp;rogram goes along: nothing has to be installed there</source>
        <translation>Das P&amp;rogramm geht mit: Dort muss nichts installiert werden</translation>
    </message>
    <message>
        <source>The program&apos;s Debian package, to be installed on the other machine</source>
        <translation>Das Debian-Paket des Programms, um es auf dem anderen Rechner zu installieren</translation>
    </message>
    <message>
        <source>With the libraries, fonts and plugins that it needs, for a machine of the same kind</source>
        <translation>Mit den Bibliotheken, Schriften und Zusätzen, die es braucht, für einen Rechner gleicher Art</translation>
    </message>
    <message>
        <source>The program cannot go along from here: its parts were not found</source>
        <translation>Von hier kann das Programm nicht mitgehen: Seine Teile wurden nicht gefunden</translation>
    </message>
    <message>
        <source>does not go along</source>
        <translation>geht nicht mit</translation>
    </message>
    <message>
        <source>It takes about %1, of which the program is %2.</source>
        <translation>Es braucht etwa %1, davon das Programm %2.</translation>
    </message>
</context>
<context>
    <name>sober::app::CharactersWindow</name>
    <message>
        <source>What stands for all others</source>
        <translation>Was für alle anderen steht</translation>
    </message>
    <message>
        <source>Characters that names there cannot hold</source>
        <translation>Zeichen, die Namen dort nicht haben können</translation>
    </message>
    <message>
        <source>Each that the target cannot hold is written there by what stands beside it, or left out where nothing does.</source>
        <translation>Jedes, das das Ziel nicht aufnehmen kann, wird dort durch das ersetzt, was daneben steht, oder weggelassen, wo nichts steht.</translation>
    </message>
    <message>
        <source>What stands for %1</source>
        <translation>Was für %1 steht</translation>
    </message>
    <message>
        <source>all others</source>
        <translation>alle anderen</translation>
    </message>
    <message>
        <source>As usual</source>
        <translation>Wie üblich</translation>
    </message>
    <message>
        <source>Use these</source>
        <translation>Diese nehmen</translation>
    </message>
</context>
<context>
    <name>sober::app::CheckChart</name>
    <message>
        <source>Verifications of each volume by weeks</source>
        <translation>Prüfungen jedes Datenträgers nach Wochen</translation>
    </message>
    <message>
        <source>No volume yet: survey one, and its baseline is recorded.</source>
        <translation>Noch kein Datenträger: erfassen Sie einen, dann wird sein Stand verzeichnet.</translation>
    </message>
    <message>
        <source>now</source>
        <translation>jetzt</translation>
    </message>
    <message>
        <source>%1 weeks ago</source>
        <translation>vor %1 Wochen</translation>
    </message>
    <message>
        <source>never verified</source>
        <translation>nie geprüft</translation>
    </message>
    <message>
        <source>last %1</source>
        <translation>zuletzt %1</translation>
    </message>
    <message>
        <source>%1, %2 due</source>
        <translation>%1, %2 fällig</translation>
    </message>
    <message>
        <source>%1, %2: %3 read (%4), %5 not as recorded, %6 not readable%7</source>
        <translation>%1, %2: %3 gelesen (%4), %5 nicht wie verzeichnet, %6 nicht lesbar%7</translation>
    </message>
    <message>
        <source>; stopped before its end</source>
        <translation>; vor dem Ende angehalten</translation>
    </message>
</context>
<context>
    <name>sober::app::ChoicesWindow</name>
    <message>
        <source>Leave out hidden files and folders</source>
        <translation>Verborgene Dateien und Ordner auslassen</translation>
    </message>
    <message>
        <source>Follow symbolic links</source>
        <translation>Symbolischen Verknüpfungen folgen</translation>
    </message>
    <message>
        <source>Keep an excerpt of each, to listen to while it is away</source>
        <translation>Von jeder eine Hörprobe behalten, zum Hören, solange sie nicht da ist</translation>
    </message>
    <message>
        <source>Look inside archives and images of drives</source>
        <translation>In Archive und Abbilder von Laufwerken hineinsehen</translation>
    </message>
    <message>
        <source>no limit</source>
        <translation>keine Grenze</translation>
    </message>
    <message>
        <source>What a survey takes in</source>
        <translation>Was eine Erfassung umfasst</translation>
    </message>
    <message>
        <source>What a survey of %1 takes in</source>
        <translation>Was eine Erfassung von %1 umfasst</translation>
    </message>
    <message>
        <source>index: checksums, claims and tags</source>
        <translation>Verzeichnis: Prüfsummen, Angaben und Tags</translation>
    </message>
    <message>
        <source>full: everything is decoded and examined</source>
        <translation>voll: alles wird dekodiert und untersucht</translation>
    </message>
    <message>
        <source>%1 seconds of the loudest part, its outline and its cover: about %2 each, in a file beside the catalogue. Only at full effort.</source>
        <translation>%1 Sekunden der lautesten Stelle, ihr Umriss und ihr Bild: je etwa %2, in einer Datei neben dem Katalog. Nur bei vollem Aufwand.</translation>
    </message>
    <message>
        <source>Excerpts are kept at full effort.</source>
        <translation>Hörproben werden bei vollem Aufwand behalten.</translation>
    </message>
    <message>
        <source>About %1 each.</source>
        <translation>Je etwa %1.</translation>
    </message>
    <message>
        <source>About %1 for its %2.</source>
        <translation>Etwa %1 für %2.</translation>
    </message>
    <message>
        <source>one shell pattern a line, such as *.tmp or Samples/*</source>
        <translation>ein Muster je Zeile, wie *.tmp oder Samples/*</translation>
    </message>
    <message>
        <source>Patterns to leave out</source>
        <translation>Muster, die ausgelassen werden</translation>
    </message>
    <message>
        <source>0 is no limit</source>
        <translation>0 heißt: keine Grenze</translation>
    </message>
    <message>
        <source>0 is all levels</source>
        <translation>0 heißt: alle Ebenen</translation>
    </message>
    <message>
        <source>all levels</source>
        <translation>alle Ebenen</translation>
    </message>
    <message>
        <source>Label</source>
        <translation>Name</translation>
    </message>
    <message>
        <source>Effort</source>
        <translation>Aufwand</translation>
    </message>
    <message>
        <source>Leave out</source>
        <translation>Auslassen</translation>
    </message>
    <message>
        <source>Files from</source>
        <translation>Dateien ab</translation>
    </message>
    <message>
        <source>Files up to</source>
        <translation>Dateien bis</translation>
    </message>
    <message>
        <source>Folders deep</source>
        <translation>Ordnertiefe</translation>
    </message>
    <message>
        <source>Keep and survey</source>
        <translation>Behalten und erfassen</translation>
    </message>
    <message>
        <source>%1 is away.</source>
        <translation>%1 ist nicht da.</translation>
    </message>
</context>
<context>
    <name>sober::app::ClaimFilters</name>
    <message>
        <source> or </source>
        <translation> oder </translation>
    </message>
    <message>
        <source>accepted too</source>
        <translation>auch angenommene</translation>
    </message>
    <message>
        <source>Filter by text</source>
        <translation>Nach Text eingrenzen</translation>
    </message>
    <message>
        <source>Filter by volume</source>
        <translation>Nach Datenträger eingrenzen</translation>
    </message>
    <message>
        <source>Filter by folder</source>
        <translation>Nach Ordner eingrenzen</translation>
    </message>
    <message>
        <source>Filter by codec</source>
        <translation>Nach Codec eingrenzen</translation>
    </message>
    <message>
        <source>Filter by verdict</source>
        <translation>Nach Urteil eingrenzen</translation>
    </message>
    <message>
        <source>Filter by claim</source>
        <translation>Nach Angabe eingrenzen</translation>
    </message>
    <message>
        <source>Where verdicts or the limit are asked for: show those that were accepted as they are, too</source>
        <translation>Wo nach Urteilen oder der Grenze gefragt ist: auch zeigen, was angenommen wurde, wie es ist</translation>
    </message>
    <message>
        <source>any verdict</source>
        <translation>jedes Urteil</translation>
    </message>
    <message>
        <source>any claim</source>
        <translation>jede Angabe</translation>
    </message>
    <message>
        <source>lossless</source>
        <translation>verlustfrei</translation>
    </message>
    <message>
        <source>lossy</source>
        <translation>verlustbehaftet</translation>
    </message>
    <message>
        <source>under the limit</source>
        <translation>unter der Grenze</translation>
    </message>
    <message>
        <source>under the limit, better copy elsewhere</source>
        <translation>unter der Grenze, anderswo eine bessere Kopie</translation>
    </message>
    <message>
        <source>all volumes</source>
        <translation>alle Datenträger</translation>
    </message>
    <message>
        <source>all folders</source>
        <translation>alle Ordner</translation>
    </message>
    <message>
        <source>all codecs</source>
        <translation>alle Codecs</translation>
    </message>
    <message>
        <source>Path, title, artist</source>
        <translation>Pfad, Titel, Künstler</translation>
    </message>
</context>
<context>
    <name>sober::app::ClaimsDesk</name>
    <message>
        <source>Claims</source>
        <translation>Angaben</translation>
    </message>
    <message>
        <source>What is not what it says?</source>
        <translation>Was ist nicht, was es angibt?</translation>
    </message>
    <message>
        <source>Verdict</source>
        <translation>Urteil</translation>
    </message>
    <message>
        <source>to accept</source>
        <translation>anzunehmen</translation>
    </message>
    <message>
        <source>accepted</source>
        <translation>angenommen</translation>
    </message>
    <message>
        <source>not examined</source>
        <translation>nicht untersucht</translation>
    </message>
    <message>
        <source>Title</source>
        <translation>Titel</translation>
    </message>
    <message>
        <source>Reaches</source>
        <translation>Reicht bis</translation>
    </message>
    <message>
        <source>%1 kHz</source>
        <translation>%1 kHz</translation>
    </message>
    <message>
        <source>Was</source>
        <translation>War</translation>
    </message>
    <message>
        <source>%1 %2</source>
        <translation>%1 %2</translation>
    </message>
    <message>
        <source>Better</source>
        <translation>Bessere</translation>
    </message>
    <message>
        <source>elsewhere</source>
        <translation>anderswo</translation>
    </message>
    <message>
        <source>Volume</source>
        <translation>Datenträger</translation>
    </message>
    <message>
        <source> (away)</source>
        <translation> (nicht da)</translation>
    </message>
    <message>
        <source>Holdings by their evidence, the worst first</source>
        <translation>Dateien nach ihrem Befund, die schlechteste zuerst</translation>
    </message>
    <message>
        <source>Nothing here. What a survey at full effort has examined is listed, the worst first.</source>
        <translation>Hier ist nichts. Aufgelistet wird, was eine Erfassung mit vollem Aufwand untersucht hat, das Schlechteste zuerst.</translation>
    </message>
    <message>
        <source>How many are shown</source>
        <translation>Wie viele gezeigt werden</translation>
    </message>
    <message>
        <source>Accept…</source>
        <translation>Annehmen…</translation>
    </message>
    <message>
        <source>Keep the selected as they are, with a reason: they are not called in question again</source>
        <translation>Die gewählten behalten, wie sie sind, mit einem Grund: sie werden nicht wieder in Frage gestellt</translation>
    </message>
    <message>
        <source>Take back</source>
        <translation>Zurücknehmen</translation>
    </message>
    <message>
        <source>Take the selected off the docket again</source>
        <translation>Die gewählten wieder vom Laufzettel nehmen</translation>
    </message>
    <message>
        <source>Look for a better one</source>
        <translation>Nach besserer suchen</translation>
    </message>
    <message>
        <source>What could take the place of the selected, among all holdings and on offer</source>
        <translation>Was an die Stelle der gewählten treten könnte, unter allen Dateien und im Angebot</translation>
    </message>
    <message>
        <source>Limits…</source>
        <translation>Grenzen…</translation>
    </message>
    <message>
        <source>The bitrate under which a lossy file counts as low, for each codec</source>
        <translation>Die Bitrate, unter der eine verlustbehaftete Datei als niedrig gilt, für jeden Codec</translation>
    </message>
    <message>
        <source>Keep as list…</source>
        <translation>Als Liste behalten…</translation>
    </message>
    <message>
        <source>Keep what is shown now as a standing list that is always current</source>
        <translation>Was jetzt gezeigt wird, als ständige Liste behalten, die immer aktuell ist</translation>
    </message>
    <message>
        <source>Forget list</source>
        <translation>Liste vergessen</translation>
    </message>
    <message>
        <source>In the picture: drag to select, wheel to come nearer, Shift and drag to move, Esc for all</source>
        <translation>Im Bild: ziehen wählt, das Rad holt näher, Umschalt und Ziehen verschiebt, Esc zeigt alles</translation>
    </message>
    <message>
        <source>%1, the worst first</source>
        <translation>%1, das Schlechteste zuerst</translation>
    </message>
    <message>
        <source>%1 of %2 selected in the picture, the worst first</source>
        <translation>%1 von %2 im Bild gewählt, das Schlechteste zuerst</translation>
    </message>
    <message>
        <source>Accept as it is</source>
        <translation>Annehmen, wie es ist</translation>
    </message>
    <message>
        <source>%1 will stand on the docket. Once carried out, the recording is kept with your reason, wherever it moves, and is not called in question again. No file changes.</source>
        <translation>%1 wird auf dem Laufzettel stehen. Ist es ausgeführt, bleibt die Aufnahme mit Ihrem Grund behalten, wohin sie auch verschoben wird, und wird nicht wieder in Frage gestellt. Keine Datei ändert sich.</translation>
    </message>
    <message>
        <source>Put on the docket</source>
        <translation>Auf den Laufzettel</translation>
    </message>
    <message>
        <source>a transfer from vinyl</source>
        <translation>von Schallplatte überspielt</translation>
    </message>
    <message>
        <source>a transfer from tape</source>
        <translation>vom Band überspielt</translation>
    </message>
    <message>
        <source>a radio recording</source>
        <translation>ein Rundfunkmitschnitt</translation>
    </message>
    <message>
        <source>nothing better exists</source>
        <translation>es gibt nichts Besseres</translation>
    </message>
    <message>
        <source>bought like this</source>
        <translation>so gekauft</translation>
    </message>
    <message>
        <source>Keep as a standing list</source>
        <translation>Als ständige Liste behalten</translation>
    </message>
    <message>
        <source>What the filters mean now is kept by this name. The list is looked up anew whenever it is used, on every desk that has it.</source>
        <translation>Was die Filter jetzt bedeuten, wird unter diesem Namen behalten. Die Liste wird bei jedem Gebrauch neu ermittelt, an jedem Pult, das sie hat.</translation>
    </message>
    <message>
        <source>Keep</source>
        <translation>Behalten</translation>
    </message>
</context>
<context>
    <name>sober::app::ClaimsMap</name>
    <message>
        <source>Stated bitrate and measured bandwidth of every examined holding</source>
        <translation>Angegebene Bitrate und gemessene Bandbreite jeder untersuchten Datei</translation>
    </message>
    <message>
        <source>24 kHz</source>
        <translation>24 kHz</translation>
    </message>
    <message>
        <source>kbit/s stated by lossy files</source>
        <translation>kbit/s laut verlustbehafteten Dateien</translation>
    </message>
    <message>
        <source>bits/kHz of lossless</source>
        <translation>Bits/kHz der verlustfreien</translation>
    </message>
    <message>
        <source>No examined holdings here. A survey at full effort examines what is at hand.</source>
        <translation>Hier sind keine untersuchten Dateien. Eine Erfassung mit vollem Aufwand untersucht, was zur Hand ist.</translation>
    </message>
    <message>
        <source>lossless, %1 bit, %2 kHz</source>
        <translation>verlustfrei, %1 Bit, %2 kHz</translation>
    </message>
    <message>
        <source>%1 kbit/s stated</source>
        <translation>%1 kbit/s angegeben</translation>
    </message>
    <message>
        <source>%1; reaches %2: %3%4</source>
        <translation>%1; reicht bis %2: %3%4</translation>
    </message>
    <message>
        <source>, accepted</source>
        <translation>, angenommen</translation>
    </message>
</context>
<context>
    <name>sober::app::ConditionDesk</name>
    <message>
        <source>Condition</source>
        <translation>Zustand</translation>
    </message>
    <message>
        <source>How is the collection, and what comes first?</source>
        <translation>Wie steht es um die Sammlung, und was kommt zuerst?</translation>
    </message>
    <message>
        <source>Next steps</source>
        <translation>Nächste Schritte</translation>
    </message>
    <message>
        <source>Standing lists</source>
        <translation>Ständige Listen</translation>
    </message>
    <message>
        <source>What the last surveys met</source>
        <translation>Was die letzten Erfassungen antrafen</translation>
    </message>
    <message>
        <source>Which notes to show</source>
        <translation>Welche Vermerke gezeigt werden</translation>
    </message>
    <message>
        <source>What</source>
        <translation>Was</translation>
    </message>
    <message>
        <source>Which</source>
        <translation>Welche</translation>
    </message>
    <message>
        <source>Changes and errors of the last surveys</source>
        <translation>Änderungen und Fehler der letzten Erfassungen</translation>
    </message>
    <message>
        <source>could not be read</source>
        <translation>war nicht zu lesen</translation>
    </message>
    <message>
        <source>What a survey could not read, and what has changed since the one before, is listed here.</source>
        <translation>Was eine Erfassung nicht lesen konnte und was sich seit der vorigen geändert hat, steht hier.</translation>
    </message>
    <message>
        <source>Nothing has changed and everything could be read.</source>
        <translation>Nichts hat sich geändert, und alles war lesbar.</translation>
    </message>
    <message>
        <source>holdings</source>
        <translation>Dateien</translation>
    </message>
    <message>
        <source>of audio</source>
        <translation>an Tonaufnahmen</translation>
    </message>
    <message>
        <source>on all volumes</source>
        <translation>auf allen Datenträgern</translation>
    </message>
    <message>
        <source>held once only</source>
        <translation>nur einmal da</translation>
    </message>
    <message>
        <source>sets of copies</source>
        <translation>Sätze von Kopien</translation>
    </message>
    <message>
        <source>missing</source>
        <translation>fehlt</translation>
    </message>
    <message>
        <source>unreadable</source>
        <translation>nicht lesbar</translation>
    </message>
    <message>
        <source>everything (%1)</source>
        <translation>alles (%1)</translation>
    </message>
    <message>
        <source>%1: %2</source>
        <translation>%1: %2</translation>
    </message>
    <message>
        <source>Survey a folder or a drive</source>
        <translation>Einen Ordner oder ein Laufwerk erfassen</translation>
    </message>
    <message>
        <source>Decide on %1 of identical copies: frees up to %2</source>
        <translation>Über gleiche Kopien entscheiden: %1, macht bis zu %2 frei</translation>
    </message>
    <message>
        <source>Track down %1</source>
        <translation>Aufspüren: %1</translation>
    </message>
    <message>
        <source>Find where %1 of players should lead now</source>
        <translation>Finden, wohin sie nun führen sollen: %1</translation>
    </message>
    <message>
        <source>Look at 1 holding that is no longer what was recorded</source>
        <translation>1 Datei ansehen, die nicht mehr ist, was verzeichnet war</translation>
    </message>
    <message>
        <source>Look at %1 that are no longer what was recorded</source>
        <translation>Ansehen, was nicht mehr ist, wie es verzeichnet war: %1</translation>
    </message>
    <message>
        <source>Look at %1 that may not be what they say</source>
        <translation>Ansehen, was vielleicht nicht ist, was es angibt: %1</translation>
    </message>
    <message>
        <source>Replace %1 of which a better copy is known</source>
        <translation>Ersetzen, wovon eine bessere Kopie bekannt ist: %1</translation>
    </message>
    <message>
        <source>Examine %1 by decoding them: a survey at full effort</source>
        <translation>Durch Dekodieren untersuchen, mit vollem Aufwand: %1</translation>
    </message>
    <message>
        <source>Look at %1 that could not be read</source>
        <translation>Ansehen, was nicht zu lesen war: %1</translation>
    </message>
    <message>
        <source>Nothing is waiting. Survey again when something has changed.</source>
        <translation>Nichts wartet. Erfassen Sie wieder, wenn sich etwas geändert hat.</translation>
    </message>
    <message>
        <source>Audio files that were there when their volume was surveyed last, on volumes at hand and away.</source>
        <translation>Tondateien, die bei der letzten Erfassung ihres Datenträgers da waren, zur Hand oder nicht.</translation>
    </message>
    <message>
        <source>How long all of them play, one after the other, by what they state.</source>
        <translation>Wie lange sie alle spielen, eine nach der anderen, nach ihrer Angabe.</translation>
    </message>
    <message>
        <source>Their size together, copies included.</source>
        <translation>Ihre Größe zusammen, Kopien eingeschlossen.</translation>
    </message>
    <message>
        <source>Of these no other copy is known: if the one file is lost, so is what it holds.</source>
        <translation>Von diesen ist keine andere Kopie bekannt: geht die eine Datei verloren, so auch, was sie enthält.</translation>
    </message>
    <message>
        <source>Recordings that are held more than once; Copies shows them.</source>
        <translation>Aufnahmen, die mehr als einmal da sind; Kopien zeigt sie.</translation>
    </message>
    <message>
        <source>Were there at an earlier survey and not at the last one; Whereabouts shows them.</source>
        <translation>Waren bei einer früheren Erfassung da und bei der letzten nicht; Verbleib zeigt sie.</translation>
    </message>
    <message>
        <source>Files that the last surveys could not read, or not as audio; listed below with the reason.</source>
        <translation>Dateien, die die letzten Erfassungen nicht oder nicht als Ton lesen konnten; unten mit dem Grund aufgelistet.</translation>
    </message>
</context>
<context>
    <name>sober::app::CopiesDesk</name>
    <message>
        <source>Copies</source>
        <translation>Kopien</translation>
    </message>
    <message>
        <source>Which of these do I keep?</source>
        <translation>Welche davon behalte ich?</translation>
    </message>
    <message>
        <source>Alike in all members</source>
        <translation>Gleich bei allen Mitgliedern</translation>
    </message>
    <message>
        <source>Part of a name, title, artist or album</source>
        <translation>Teil von Name, Titel, Künstler oder Album</translation>
    </message>
    <message>
        <source>Filter the sets by text</source>
        <translation>Die Sätze nach Text eingrenzen</translation>
    </message>
    <message>
        <source>How the members are the same</source>
        <translation>Worin die Mitglieder gleich sind</translation>
    </message>
    <message>
        <source>all copies</source>
        <translation>alle Kopien</translation>
    </message>
    <message>
        <source>Filter the sets by volume</source>
        <translation>Die Sätze nach Datenträger eingrenzen</translation>
    </message>
    <message>
        <source>Order of the sets</source>
        <translation>Reihenfolge der Sätze</translation>
    </message>
    <message>
        <source>most bytes first</source>
        <translation>meiste Bytes zuerst</translation>
    </message>
    <message>
        <source>most copies first</source>
        <translation>meiste Kopien zuerst</translation>
    </message>
    <message>
        <source>doubtful first</source>
        <translation>zweifelhafte zuerst</translation>
    </message>
    <message>
        <source>weakest link first</source>
        <translation>schwächste Verbindung zuerst</translation>
    </message>
    <message>
        <source>Decided or not</source>
        <translation>Entschieden oder nicht</translation>
    </message>
    <message>
        <source>all sets</source>
        <translation>alle Sätze</translation>
    </message>
    <message>
        <source>undecided sets</source>
        <translation>unentschiedene Sätze</translation>
    </message>
    <message>
        <source>Copy sets</source>
        <translation>Kopiensätze</translation>
    </message>
    <message>
        <source>No identical copies here. Survey more volumes, or show all sets.</source>
        <translation>Hier sind keine gleichen Kopien. Erfassen Sie mehr Datenträger oder zeigen Sie alle Sätze.</translation>
    </message>
    <message>
        <source>Members of the set</source>
        <translation>Mitglieder des Satzes</translation>
    </message>
    <message>
        <source>Reasons</source>
        <translation>Gründe</translation>
    </message>
    <message>
        <source>Keep</source>
        <translation>Behalten</translation>
    </message>
    <message>
        <source>Keep the chosen member and retire the others</source>
        <translation>Das gewählte Mitglied behalten und die anderen aussondern</translation>
    </message>
    <message>
        <source>Retire</source>
        <translation>Aussondern</translation>
    </message>
    <message>
        <source>Put the chosen member on the docket, or take it off again</source>
        <translation>Das gewählte Mitglied auf den Laufzettel setzen oder wieder davon nehmen</translation>
    </message>
    <message>
        <source>As advised</source>
        <translation>Wie geraten</translation>
    </message>
    <message>
        <source>Decide this set as advised and go to the next</source>
        <translation>Diesen Satz entscheiden, wie geraten, und weiter zum nächsten</translation>
    </message>
    <message>
        <source>Leave</source>
        <translation>Lassen</translation>
    </message>
    <message>
        <source>Keep every member of this set</source>
        <translation>Jedes Mitglied dieses Satzes behalten</translation>
    </message>
    <message>
        <source>Tags…</source>
        <translation>Tags…</translation>
    </message>
    <message>
        <source>Take over what the others know that the one that stays does not</source>
        <translation>Übernehmen, was die anderen wissen und die bleibende nicht</translation>
    </message>
    <message>
        <source>Undecide</source>
        <translation>Unentschieden</translation>
    </message>
    <message>
        <source>Next</source>
        <translation>Nächster</translation>
    </message>
    <message>
        <source>Decide many…</source>
        <translation>Viele entscheiden…</translation>
    </message>
    <message>
        <source>all volumes</source>
        <translation>alle Datenträger</translation>
    </message>
    <message>
        <source>%1: %2</source>
        <translation>%1: %2</translation>
    </message>
    <message>
        <source>Alike in all – </source>
        <translation>Gleich bei allen – </translation>
    </message>
    <message>
        <source>Advised to keep: %1.</source>
        <translation>Zu behalten geraten: %1.</translation>
    </message>
    <message>
        <source>Advised to retire: %1.</source>
        <translation>Auszusondern geraten: %1.</translation>
    </message>
    <message>
        <source>Yours to decide: %1.</source>
        <translation>Von Ihnen zu entscheiden: %1.</translation>
    </message>
    <message>
        <source>The evidence does not say which to retire: this one is yours to decide.</source>
        <translation>Der Befund sagt nicht, welche auszusondern ist: das entscheiden Sie.</translation>
    </message>
    <message>
        <source>Decide first which one stays: tags are taken over into that one.</source>
        <translation>Entscheiden Sie erst, welche bleibt: in diese werden die Tags übernommen.</translation>
    </message>
</context>
<context>
    <name>sober::app::Desk</name>
    <message>
        <source>Cancel</source>
        <translation>Abbrechen</translation>
    </message>
</context>
<context>
    <name>sober::app::DiscBand</name>
    <message>
        <source>not read yet</source>
        <translation>noch nicht gelesen</translation>
    </message>
    <message>
        <source>%1, none agreeing so far</source>
        <translation>%1, bisher keine gleich</translation>
    </message>
    <message>
        <source>agreed in %1</source>
        <translation>übereinstimmend nach %1</translation>
    </message>
    <message>
        <source>agreed after %1, of which some differed</source>
        <translation>übereinstimmend nach %1, von denen einige abwichen</translation>
    </message>
    <message>
        <source>doubtful: no two of %1 that count are one</source>
        <translation>zweifelhaft: keine zwei von %1, die zählen, sind gleich</translation>
    </message>
    <message>
        <source>never read, in %1</source>
        <translation>nie gelesen, bei %1</translation>
    </message>
    <message>
        <source>The disc from lead-in to lead-out, each place by how well it was read</source>
        <translation>Die Disc vom Lead-in bis zum Lead-out, jede Stelle danach, wie gut sie gelesen wurde</translation>
    </message>
    <message>
        <source>How often each place was read, and what came of it</source>
        <translation>Wie oft jede Stelle gelesen wurde und was dabei herauskam</translation>
    </message>
    <message>
        <source>lead-in</source>
        <translation>Lead-in</translation>
    </message>
    <message>
        <source>lead-out %1</source>
        <translation>Lead-out %1</translation>
    </message>
    <message>
        <source>lead-out</source>
        <translation>Lead-out</translation>
    </message>
    <message>
        <source>data</source>
        <translation>Daten</translation>
    </message>
    <message>
        <source>never read</source>
        <translation>nie gelesen</translation>
    </message>
    <message>
        <source>doubtful</source>
        <translation>zweifelhaft</translation>
    </message>
    <message>
        <source>agreed late</source>
        <translation>spät übereinstimmend</translation>
    </message>
    <message>
        <source>agreed</source>
        <translation>übereinstimmend</translation>
    </message>
    <message>
        <source>before the first track, %1</source>
        <translation>vor dem ersten Titel, %1</translation>
    </message>
    <message>
        <source>track %1, %2</source>
        <translation>Titel %1, %2</translation>
    </message>
    <message>
        <source>%1: %2</source>
        <translation>%1: %2</translation>
    </message>
</context>
<context>
    <name>sober::app::DiscDesk</name>
    <message>
        <source>Disc</source>
        <translation>Disc</translation>
    </message>
    <message>
        <source>What is on this disc, and was it read rightly?</source>
        <translation>Was ist auf dieser Disc, und wurde sie richtig gelesen?</translation>
    </message>
    <message>
        <source>Choose a drive with an audio disc in it, or the cue sheet of a disc&apos;s image.</source>
        <translation>Wählen Sie ein Laufwerk mit einer Audio-Disc oder das Cue-Sheet eines Abbilds.</translation>
    </message>
    <message>
        <source>The disc</source>
        <translation>Die Disc</translation>
    </message>
    <message>
        <source>Choose a disc…</source>
        <translation>Disc wählen…</translation>
    </message>
    <message>
        <source>A drive, as /dev/sr0, or the cue sheet of an image</source>
        <translation>Ein Laufwerk, etwa /dev/sr0, oder das Cue-Sheet eines Abbilds</translation>
    </message>
    <message>
        <source>Services…</source>
        <translation>Dienste…</translation>
    </message>
    <message>
        <source>A register that proves readings, and a lookup that names discs</source>
        <translation>Ein Register, das Lesungen bestätigt, und ein Nachschlagedienst, der Discs benennt</translation>
    </message>
    <message>
        <source>Arrivals</source>
        <translation>Neuzugänge</translation>
    </message>
    <message>
        <source>Back to what lies in the inboxes</source>
        <translation>Zurück zu dem, was in den Eingangsordnern liegt</translation>
    </message>
    <message>
        <source>A drive, or the cue sheet of a disc&apos;s image</source>
        <translation>Ein Laufwerk oder das Cue-Sheet vom Abbild einer Disc</translation>
    </message>
    <message>
        <source>What it is called</source>
        <translation>Wie sie heißt</translation>
    </message>
    <message>
        <source>Taken when the disc is read; after another choice read again, which is quick</source>
        <translation>Wird beim Lesen der Disc übernommen; nach einer anderen Wahl neu gelesen, was schnell geht</translation>
    </message>
    <message>
        <source>Names…</source>
        <translation>Namen…</translation>
    </message>
    <message>
        <source>Change what the disc and its tracks are called</source>
        <translation>Ändern, wie die Disc und ihre Titel heißen</translation>
    </message>
    <message>
        <source>Forms</source>
        <translation>Formen</translation>
    </message>
    <message>
        <source>%1: %2 (%3)</source>
        <translation>%1: %2 (%3)</translation>
    </message>
    <message>
        <source>all tracks in one file, with the cue sheet in it</source>
        <translation>alle Titel in einer Datei, mit dem Cue-Sheet darin</translation>
    </message>
    <message>
        <source>plain tags: title, artist, album and numbers alone</source>
        <translation>einfache Tags: nur Titel, Künstler, Album und Nummern</translation>
    </message>
    <message>
        <source>Into…</source>
        <translation>Wohin…</translation>
    </message>
    <message>
        <source>Read</source>
        <translation>Lesen</translation>
    </message>
    <message>
        <source>Until the readings agree, or go on with what was begun; the files go on the docket</source>
        <translation>Bis die Lesungen übereinstimmen, oder das Begonnene fortsetzen; die Dateien kommen auf den Laufzettel</translation>
    </message>
    <message>
        <source>In which forms the tracks are written, each by a name for what it is for</source>
        <translation>In welchen Formen die Titel geschrieben werden, jede nach ihrem Zweck benannt</translation>
    </message>
    <message>
        <source>Into which folder</source>
        <translation>In welchen Ordner</translation>
    </message>
    <message>
        <source>Tracks</source>
        <translation>Titel</translation>
    </message>
    <message>
        <source>No disc was chosen.</source>
        <translation>Es wurde keine Disc gewählt.</translation>
    </message>
    <message>
        <source>The chosen track</source>
        <translation>Der gewählte Titel</translation>
    </message>
    <message>
        <source>How the chosen track was read</source>
        <translation>Wie der gewählte Titel gelesen wurde</translation>
    </message>
    <message>
        <source>What could be better…</source>
        <translation>Was besser sein könnte…</translation>
    </message>
    <message>
        <source>Which low copies of this disc the files could replace, once they are in their places</source>
        <translation>Welche schlechten Kopien dieser Disc die Dateien ersetzen könnten, sobald sie an ihrem Ort sind</translation>
    </message>
    <message>
        <source>The folder into which the files go; it is asked for before reading</source>
        <translation>Der Ordner, in den die Dateien kommen; er wird vor dem Lesen erfragt</translation>
    </message>
    <message>
        <source>no folder yet</source>
        <translation>noch kein Ordner</translation>
    </message>
    <message>
        <source>Looking at %1…</source>
        <translation>%1 wird angesehen…</translation>
    </message>
    <message>
        <source>%1 · %2, %3</source>
        <translation>%1 · %2, %3</translation>
    </message>
    <message>
        <source>%1
Disc %2</source>
        <translation>%1
Disc %2</translation>
    </message>
    <message>
        <source> · as long as what is held in %1</source>
        <translation> · so lang wie das in %1 Vorhandene</translation>
    </message>
    <message>
        <source>
As long as what is held in %1</source>
        <translation>
So lang wie das in %1 Vorhandene</translation>
    </message>
    <message>
        <source>(hidden before the first)</source>
        <translation>(vor dem ersten verborgen)</translation>
    </message>
    <message>
        <source>Choose a track to see how it was read.</source>
        <translation>Wählen Sie einen Titel, um zu sehen, wie er gelesen wurde.</translation>
    </message>
    <message>
        <source>nothing is chosen</source>
        <translation>nichts ist gewählt</translation>
    </message>
    <message>
        <source>Track %1</source>
        <translation>Titel %1</translation>
    </message>
    <message>
        <source>%1: %2</source>
        <translation>%1: %2</translation>
    </message>
    <message>
        <source>its files are in their places; listen there</source>
        <translation>seine Dateien sind an ihrem Ort; hören Sie dort</translation>
    </message>
    <message>
        <source>it was not read yet</source>
        <translation>er wurde noch nicht gelesen</translation>
    </message>
    <message>
        <source>%1 read; %2 on the docket.</source>
        <translation>%1 gelesen; %2 auf dem Laufzettel.</translation>
    </message>
    <message>
        <source> Doubtful: %1.</source>
        <translation> Zweifelhaft: %1.</translation>
    </message>
    <message>
        <source> The register proves an offset of %1.</source>
        <translation> Das Register belegt einen Versatz von %1.</translation>
    </message>
    <message>
        <source>no form yet</source>
        <translation>noch keine Form</translation>
    </message>
    <message>
        <source>, </source>
        <translation>, </translation>
    </message>
    <message>
        <source>Choose a disc first.</source>
        <translation>Wählen Sie zuerst eine Disc.</translation>
    </message>
    <message>
        <source>Other work is going on; read the disc once it has ended.</source>
        <translation>Andere Arbeit läuft; lesen Sie die Disc, wenn sie zu Ende ist.</translation>
    </message>
    <message>
        <source>Choose at least one form.</source>
        <translation>Wählen Sie mindestens eine Form.</translation>
    </message>
    <message>
        <source>Take these names</source>
        <translation>Diese Namen nehmen</translation>
    </message>
</context>
<context>
    <name>sober::app::DiscServicesWindow</name>
    <message>
        <source>Services about discs</source>
        <translation>Dienste über Discs</translation>
    </message>
    <message>
        <source>What is sent</source>
        <translation>Was gesendet wird</translation>
    </message>
    <message>
        <source>A rip register knows which checksums others got from the same disc, a lookup what discs are called. Each is told a disc&apos;s id and where its tracks begin, and nothing else; empty for none. No other service is ever asked.</source>
        <translation>Ein Leseregister kennt die Prüfsummen, die andere von derselben Disc erhielten, ein Nachschlagedienst, wie Discs heißen. Jedem werden die Kennung der Disc und der Beginn ihrer Titel genannt, sonst nichts; leer heißt keiner. Kein anderer Dienst wird je gefragt.</translation>
    </message>
    <message>
        <source>Rip register</source>
        <translation>Leseregister</translation>
    </message>
    <message>
        <source>Lookup</source>
        <translation>Nachschlagedienst</translation>
    </message>
    <message>
        <source>Set up</source>
        <translation>Einrichten</translation>
    </message>
</context>
<context>
    <name>sober::app::DocketStrip</name>
    <message>
        <source>Read through…   Ctrl+D</source>
        <translation>Durchlesen…   Strg+D</translation>
    </message>
    <message>
        <source>Docket</source>
        <translation>Laufzettel</translation>
    </message>
    <message>
        <source>What waits on the docket</source>
        <translation>Was auf dem Laufzettel wartet</translation>
    </message>
    <message>
        <source>What waits to be settled</source>
        <translation>Was zu ordnen wartet</translation>
    </message>
    <message>
        <source>Read the docket through</source>
        <translation>Den Laufzettel durchlesen</translation>
    </message>
    <message>
        <source>Left by an interruption: %1%2</source>
        <translation>Von einer Unterbrechung übrig: %1%2</translation>
    </message>
    <message>
        <source> And 1 more; the ledger lists both.</source>
        <translation> Und 1 weiteres; das Protokoll nennt beide.</translation>
    </message>
    <message>
        <source> And %1 more; the ledger lists them.</source>
        <translation> Und %1 weitere; das Protokoll nennt sie.</translation>
    </message>
    <message>
        <source>empty: nothing waits to be carried out</source>
        <translation>leer: nichts wartet auf Ausführung</translation>
    </message>
    <message>
        <source>%1%2 · takes %3 along · nothing has changed yet</source>
        <translation>%1%2 · nimmt %3 mit · noch hat sich nichts geändert</translation>
    </message>
    <message>
        <source>1 action waits</source>
        <translation>1 Maßnahme wartet</translation>
    </message>
    <message>
        <source>%1 actions wait</source>
        <translation>%1 Maßnahmen warten</translation>
    </message>
    <message>
        <source> · frees %1 once the trash is emptied</source>
        <translation> · macht %1 frei, sobald der Papierkorb geleert ist</translation>
    </message>
    <message>
        <source>no references</source>
        <translation>keine Verweise</translation>
    </message>
</context>
<context>
    <name>sober::app::DocketWindow</name>
    <message>
        <source>Refused: %1</source>
        <translation>Abgelehnt: %1</translation>
    </message>
    <message>
        <source>Consented: %1</source>
        <translation>Eingewilligt: %1</translation>
    </message>
    <message>
        <source>to %1</source>
        <translation>nach %1</translation>
    </message>
    <message>
        <source>to %1; %2</source>
        <translation>nach %1; %2</translation>
    </message>
    <message>
        <source>Take off the docket</source>
        <translation>Vom Laufzettel nehmen</translation>
    </message>
    <message>
        <source>Consent to this loss</source>
        <translation>In diesen Verlust einwilligen</translation>
    </message>
    <message>
        <source>Carry out</source>
        <translation>Ausführen</translation>
    </message>
    <message>
        <source>Stop after this file</source>
        <translation>Nach dieser Datei anhalten</translation>
    </message>
    <message>
        <source>The docket</source>
        <translation>Der Laufzettel</translation>
    </message>
    <message>
        <source>What carrying out would do</source>
        <translation>Was die Ausführung täte</translation>
    </message>
    <message>
        <source>Action</source>
        <translation>Maßnahme</translation>
    </message>
    <message>
        <source>needs consent</source>
        <translation>braucht Einwilligung</translation>
    </message>
    <message>
        <source>refused</source>
        <translation>abgelehnt</translation>
    </message>
    <message>
        <source>Volume</source>
        <translation>Datenträger</translation>
    </message>
    <message>
        <source>File</source>
        <translation>Datei</translation>
    </message>
    <message>
        <source>Frees</source>
        <translation>Frei wird</translation>
    </message>
    <message>
        <source>nothing</source>
        <translation>nichts</translation>
    </message>
    <message>
        <source>Why</source>
        <translation>Warum</translation>
    </message>
    <message>
        <source>Actions on the docket</source>
        <translation>Maßnahmen auf dem Laufzettel</translation>
    </message>
    <message>
        <source>The docket is empty. Decide on copies or on what is missing, and it is listed here before anything happens.</source>
        <translation>Der Laufzettel ist leer. Entscheiden Sie über Kopien oder Fehlendes; es steht dann hier, bevor irgendetwas geschieht.</translation>
    </message>
    <message>
        <source>List</source>
        <translation>Liste</translation>
    </message>
    <message>
        <source>%1: %2</source>
        <translation>%1: %2</translation>
    </message>
    <message>
        <source>Line</source>
        <translation>Zeile</translation>
    </message>
    <message>
        <source>Before</source>
        <translation>Vorher</translation>
    </message>
    <message>
        <source>After</source>
        <translation>Nachher</translation>
    </message>
    <message>
        <source>left as it is</source>
        <translation>bleibt, wie es ist</translation>
    </message>
    <message>
        <source>Lines of lists that change</source>
        <translation>Zeilen von Listen, die sich ändern</translation>
    </message>
    <message>
        <source>Outcome</source>
        <translation>Ergebnis</translation>
    </message>
    <message>
        <source>Close</source>
        <translation>Schließen</translation>
    </message>
    <message>
        <source>For the one chosen line that needs it; the loss is named there and in the ledger</source>
        <translation>Für die eine gewählte Zeile, die es braucht; der Verlust wird dort und im Protokoll genannt</translation>
    </message>
    <message>
        <source>Carrying out: %1</source>
        <translation>Ausführung: %1</translation>
    </message>
    <message>
        <source>%1 of %2 change; every other byte stays as it is</source>
        <translation>%1 von %2 ändern sich; jedes andere Byte bleibt, wie es ist</translation>
    </message>
    <message>
        <source>%1 will be carried out</source>
        <translation>Ausgeführt wird: %1</translation>
    </message>
    <message>
        <source>, %1 to a loss that you have to consent to first, line by line</source>
        <translation>, davon %1 mit einem Verlust, in den Sie erst einwilligen müssen, Zeile für Zeile</translation>
    </message>
    <message>
        <source>, %1 will be refused and stay on the docket</source>
        <translation>, abgelehnt wird und auf dem Laufzettel bleibt: %1</translation>
    </message>
    <message>
        <source>. Each list is written anew beside the old one, read back, and put in its place; what it was is kept in the ledger.</source>
        <translation>. Jede Liste wird neben der alten neu geschrieben, zurückgelesen und an ihre Stelle gesetzt; was sie war, bewahrt das Protokoll.</translation>
    </message>
    <message>
        <source>. What is retired is compared with the copy that stays, then put into the trash; what is mended or gets tags is made anew, read back, and what it was goes to the trash too; what is moved is renamed.</source>
        <translation>. Ausgesondertes wird mit der bleibenden Kopie verglichen und kommt dann in den Papierkorb; was geheilt wird oder Tags bekommt, wird neu gemacht und zurückgelesen, und das Frühere kommt auch in den Papierkorb; Verschobenes wird umbenannt.</translation>
    </message>
    <message>
        <source>What was salvaged is written where nothing stands, and read back.</source>
        <translation>Geborgenes wird geschrieben, wo nichts steht, und zurückgelesen.</translation>
    </message>
    <message>
        <source>What leaves the trash is held against the copy that stays, byte for byte, and cannot be taken back.</source>
        <translation>Was den Papierkorb verlässt, wird Byte für Byte mit der bleibenden Kopie verglichen und lässt sich nicht zurücknehmen.</translation>
    </message>
    <message>
        <source>Frees once the trash is emptied: %1.</source>
        <translation>Frei wird, sobald der Papierkorb geleert ist: %1.</translation>
    </message>
    <message>
        <source>Takes no references along.</source>
        <translation>Nimmt keine Verweise mit.</translation>
    </message>
    <message>
        <source>Takes %1 of players along.</source>
        <translation>Nimmt %1 von Abspielern mit.</translation>
    </message>
    <message>
        <source>All else can be taken back from the ledger.</source>
        <translation>Alles andere lässt sich im Protokoll zurücknehmen.</translation>
    </message>
    <message>
        <source>Everything can be taken back from the ledger.</source>
        <translation>Alles lässt sich im Protokoll zurücknehmen.</translation>
    </message>
    <message>
        <source>Carried out: %1, frees %2 once the trash is emptied.</source>
        <translation>Ausgeführt: %1, macht %2 frei, sobald der Papierkorb geleert ist.</translation>
    </message>
    <message>
        <source> %1 of players now lead elsewhere.</source>
        <translation> Von Abspielern führen nun anderswohin: %1.</translation>
    </message>
    <message>
        <source> Stopped before the end; the rest still waits.</source>
        <translation> Vor dem Ende angehalten; der Rest wartet noch.</translation>
    </message>
    <message>
        <source> Refused: %1. %2</source>
        <translation> Abgelehnt: %1. %2</translation>
    </message>
</context>
<context>
    <name>sober::app::EvidencePanel</name>
    <message>
        <source>, %1 % sure</source>
        <translation>, zu %1 % sicher</translation>
    </message>
    <message>
        <source>: was %1 at about %2 kbit/s</source>
        <translation>: war %1 mit etwa %2 kbit/s</translation>
    </message>
    <message>
        <source>: was %1</source>
        <translation>: war %1</translation>
    </message>
    <message>
        <source>Verdict</source>
        <translation>Urteil</translation>
    </message>
    <message>
        <source>Reasons of the verdict</source>
        <translation>Gründe des Urteils</translation>
    </message>
    <message>
        <source>Why it was accepted</source>
        <translation>Warum es angenommen wurde</translation>
    </message>
    <message>
        <source>Facts</source>
        <translation>Tatsachen</translation>
    </message>
    <message>
        <source>Not examined</source>
        <translation>Nicht untersucht</translation>
    </message>
    <message>
        <source>Survey its volume at full effort, and what is in it is measured.</source>
        <translation>Erfassen Sie ihren Datenträger mit vollem Aufwand, dann wird gemessen, was in ihr ist.</translation>
    </message>
    <message>
        <source>Choose a point or a line, and its evidence is shown here.</source>
        <translation>Wählen Sie einen Punkt oder eine Zeile; der Befund steht dann hier.</translation>
    </message>
    <message>
        <source>not sound: %1 at %2</source>
        <translation>nicht heil: %1 bei %2</translation>
    </message>
    <message>
        <source>Accepted as it is: %1 (%2).</source>
        <translation>Angenommen, wie es ist: %1 (%2).</translation>
    </message>
    <message>
        <source>Click here to see its frequencies over time (decodes the file once).</source>
        <translation>Klicken Sie hier, um die Frequenzen über die Zeit zu sehen (dekodiert die Datei einmal).</translation>
    </message>
    <message>
        <source>The volume is away: no frequencies over time.</source>
        <translation>Der Datenträger ist nicht da: keine Frequenzen über die Zeit.</translation>
    </message>
    <message>
        <source>The volume is away.</source>
        <translation>Der Datenträger ist nicht da.</translation>
    </message>
    <message>
        <source>Decoding…</source>
        <translation>Wird dekodiert…</translation>
    </message>
    <message>
        <source>Claims %1 %2, %3</source>
        <translation>Gibt an: %1 %2, %3</translation>
    </message>
    <message>
        <source>bits/kHz</source>
        <translation>Bits/kHz</translation>
    </message>
    <message>
        <source>kbit/s</source>
        <translation>kbit/s</translation>
    </message>
    <message>
        <source>peak %1 dBFS</source>
        <translation>Spitze %1 dBFS</translation>
    </message>
    <message>
        <source>mean %1 dBFS</source>
        <translation>Mittel %1 dBFS</translation>
    </message>
    <message>
        <source>%1 bits used</source>
        <translation>%1 Bits genutzt</translation>
    </message>
    <message>
        <source>%1 clipped samples</source>
        <translation>%1 übersteuerte Abtastwerte</translation>
    </message>
    <message>
        <source>mono stored as stereo</source>
        <translation>Mono, als Stereo gespeichert</translation>
    </message>
    <message>
        <source>Measured %1</source>
        <translation>Gemessen: %1</translation>
    </message>
    <message>
        <source>A better copy: %1</source>
        <translation>Eine bessere Kopie: %1</translation>
    </message>
    <message>
        <source>How sure it is says how clearly the evidence speaks, not how likely an error is: what is said below is what was measured.</source>
        <translation>Wie sicher es ist, sagt, wie deutlich der Befund spricht, nicht wie wahrscheinlich ein Irrtum ist: darunter steht, was gemessen wurde.</translation>
    </message>
    <message>
        <source>Claims: what the file states of itself; of a lossless one the bits of a sample and thousands of samples a second.
Peak and mean: the loudest sample and the average, in decibels below full scale (dBFS).
Bits used: how many of each sample&apos;s bits are not always zero.
Clipped samples: three or more in a row at full scale, where the wave was cut off.</source>
        <translation>Gibt an: was die Datei von sich sagt; bei einer verlustfreien die Bits eines Abtastwerts und die Tausende von Abtastwerten je Sekunde.
Spitze und Mittel: der lauteste Abtastwert und der Durchschnitt, in Dezibel unter Vollaussteuerung (dBFS).
Genutzte Bits: wie viele Bits jedes Abtastwerts nicht immer null sind.
Übersteuerte Abtastwerte: drei oder mehr hintereinander bei Vollaussteuerung, wo die Welle abgeschnitten wurde.</translation>
    </message>
</context>
<context>
    <name>sober::app::ExcerptStrip</name>
    <message>
        <source>Outline of the recording and its excerpt</source>
        <translation>Umriss der Aufnahme und ihre Hörprobe</translation>
    </message>
    <message>
        <source>An excerpt from %1 to %2 of %3 is kept</source>
        <translation>Eine Hörprobe von %1 bis %2 von %3 ist da</translation>
    </message>
    <message>
        <source>%1, in the excerpt</source>
        <translation>%1, in der Hörprobe</translation>
    </message>
    <message>
        <source>%1, not kept: only its loudness</source>
        <translation>%1, nicht behalten: nur die Lautstärke</translation>
    </message>
</context>
<context>
    <name>sober::app::FindDesk</name>
    <message>
        <source>Find</source>
        <translation>Suchen</translation>
    </message>
    <message>
        <source>Where is it, and what is there?</source>
        <translation>Wo ist es, und was ist da?</translation>
    </message>
    <message>
        <source>What was found</source>
        <translation>Was gefunden wurde</translation>
    </message>
    <message>
        <source>Nothing that is catalogued has all these words. Fewer words or less narrowing find more.</source>
        <translation>Nichts Erfasstes enthält alle diese Wörter. Weniger Wörter oder weniger Eingrenzung finden mehr.</translation>
    </message>
    <message>
        <source>How many were found</source>
        <translation>Wie viele gefunden wurden</translation>
    </message>
    <message>
        <source>Show in its folder</source>
        <translation>Im Ordner zeigen</translation>
    </message>
    <message>
        <source>Open the folder of the chosen one in the file manager</source>
        <translation>Den Ordner der gewählten im Dateiverwalter öffnen</translation>
    </message>
    <message>
        <source>Retire</source>
        <translation>Aussondern</translation>
    </message>
    <message>
        <source>Put the selected on the docket, to be retired into the trash</source>
        <translation>Die gewählten auf den Laufzettel setzen, um sie in den Papierkorb auszusondern</translation>
    </message>
    <message>
        <source>Move…</source>
        <translation>Verschieben…</translation>
    </message>
    <message>
        <source>Move the selected, or the folder where that has the cursor; or drag them onto a volume or folder. What lies inside an archive is copied out of it</source>
        <translation>Die gewählten verschieben, oder den Ordner, wenn dort der Zeiger steht; oder auf einen Datenträger oder Ordner ziehen. Was in einem Archiv liegt, wird herauskopiert</translation>
    </message>
    <message>
        <source>Tags…</source>
        <translation>Tags…</translation>
    </message>
    <message>
        <source>Edit the tags of the selected in a table</source>
        <translation>Die Tags der gewählten in einer Tabelle bearbeiten</translation>
    </message>
    <message>
        <source>Take back</source>
        <translation>Zurücknehmen</translation>
    </message>
    <message>
        <source>Take the selected off the docket again</source>
        <translation>Die gewählten wieder vom Laufzettel nehmen</translation>
    </message>
    <message>
        <source>Keep as list…</source>
        <translation>Als Liste behalten…</translation>
    </message>
    <message>
        <source>Keep what is asked for now as a standing list that is always current</source>
        <translation>Wonach jetzt gefragt ist, als ständige Liste behalten, die immer aktuell ist</translation>
    </message>
    <message>
        <source>Bring along…</source>
        <translation>Mitbringen…</translation>
    </message>
    <message>
        <source>Have what is asked for now come along in a transfer to another place</source>
        <translation>Wonach jetzt gefragt ist, bei einer Übertragung an einen anderen Ort mitnehmen</translation>
    </message>
    <message>
        <source>what was found</source>
        <translation>das Gefundene</translation>
    </message>
    <message>
        <source>found: %1</source>
        <translation>gefunden: %1</translation>
    </message>
    <message>
        <source>P listens · a word between quotes keeps its spaces</source>
        <translation>P spielt ab · ein Wort zwischen Anführungszeichen behält seine Leerzeichen</translation>
    </message>
    <message>
        <source>Its folder cannot be shown: %1.</source>
        <translation>Der Ordner lässt sich nicht zeigen: %1.</translation>
    </message>
    <message>
        <source>A span is FROM-TO, either of which may be left out, as 96-160.</source>
        <translation>Eine Spanne ist VON-BIS; eines davon darf fehlen, wie 96-160.</translation>
    </message>
    <message>
        <source>searching… the first %1</source>
        <translation>wird gesucht… die ersten %1</translation>
    </message>
    <message>
        <source>%1; %2 no longer there</source>
        <translation>%1; nicht mehr da: %2</translation>
    </message>
    <message>
        <source>Choose holdings that are at hand first.</source>
        <translation>Wählen Sie zuerst Dateien, die zur Hand sind.</translation>
    </message>
    <message>
        <source>Nothing of what is selected is there to be retired.</source>
        <translation>Von den gewählten ist nichts da, was auszusondern wäre.</translation>
    </message>
    <message>
        <source>the folder %1</source>
        <translation>der Ordner %1</translation>
    </message>
    <message>
        <source>Keep as a standing list</source>
        <translation>Als ständige Liste behalten</translation>
    </message>
    <message>
        <source>What is asked for now is kept by this name. The list is looked up anew whenever it is used, on every desk that has it.</source>
        <translation>Wonach jetzt gefragt ist, wird unter diesem Namen behalten. Die Liste wird bei jedem Gebrauch neu ermittelt, an jedem Pult, das sie hat.</translation>
    </message>
    <message>
        <source>Keep</source>
        <translation>Behalten</translation>
    </message>
</context>
<context>
    <name>sober::app::FindEvidence</name>
    <message>
        <source>all of its bytes are the same</source>
        <translation>alle Bytes sind gleich</translation>
    </message>
    <message>
        <source>its audio data is the same, its tags are not</source>
        <translation>die Audiodaten sind gleich, die Tags nicht</translation>
    </message>
    <message>
        <source>its samples are the same</source>
        <translation>die Abtastwerte sind gleich</translation>
    </message>
    <message>
        <source>put together from its recorded parts, every byte of it</source>
        <translation>aus verzeichneten Teilen zusammengesetzt, jedes Byte</translation>
    </message>
    <message>
        <source>put together from its recorded parts, of which %1 % are there</source>
        <translation>aus verzeichneten Teilen zusammengesetzt, von denen %1 % da sind</translation>
    </message>
    <message>
        <source>it sounds the same (%1 % of the fingerprint agree)</source>
        <translation>es klingt gleich (%1 % des Fingerabdrucks stimmen überein)</translation>
    </message>
    <message>
        <source>only its tags say so</source>
        <translation>nur die Tags sprechen dafür</translation>
    </message>
    <message>
        <source>in the trash as %1; where it was is not known</source>
        <translation>im Papierkorb als %1; wo es war, ist nicht bekannt</translation>
    </message>
    <message>
        <source>in the trash as %1; it was at %2</source>
        <translation>im Papierkorb als %1; war bei %2</translation>
    </message>
    <message>
        <source>, once called %1</source>
        <translation>, hieß einmal %1</translation>
    </message>
    <message>
        <source>in one piece from byte %1 on%2</source>
        <translation>in einem Stück ab Byte %1%2</translation>
    </message>
    <message>
        <source>in %1 pieces, the first from byte %2 on%3</source>
        <translation>in %1 Stücken, das erste ab Byte %2%3</translation>
    </message>
    <message>
        <source>without a name</source>
        <translation>ohne Namen</translation>
    </message>
    <message>
        <source>not examined yet</source>
        <translation>noch nicht untersucht</translation>
    </message>
    <message>
        <source>%1 % of it</source>
        <translation>%1 % davon</translation>
    </message>
    <message>
        <source>broken off</source>
        <translation>abgebrochen</translation>
    </message>
    <message>
        <source>a middle part</source>
        <translation>ein Mittelstück</translation>
    </message>
    <message>
        <source>written over in part</source>
        <translation>teils überschrieben</translation>
    </message>
    <message>
        <source>damaged</source>
        <translation>beschädigt</translation>
    </message>
    <message>
        <source>whole</source>
        <translation>ganz</translation>
    </message>
    <message>
        <source>Where it lies</source>
        <translation>Wo es liegt</translation>
    </message>
    <message>
        <source>What it is recognised as</source>
        <translation>Als was es erkannt ist</translation>
    </message>
    <message>
        <source>How whole it is</source>
        <translation>Wie vollständig es ist</translation>
    </message>
    <message>
        <source>The chosen find</source>
        <translation>Das gewählte Fundstück</translation>
    </message>
    <message>
        <source>In the collection</source>
        <translation>In der Sammlung</translation>
    </message>
    <message>
        <source>Choose a find to see where it lies and what it is.</source>
        <translation>Wählen Sie ein Fundstück, um zu sehen, wo es liegt und was es ist.</translation>
    </message>
    <message>
        <source>nothing is chosen</source>
        <translation>nichts ist gewählt</translation>
    </message>
    <message>
        <source>This is the missing %1: %2.</source>
        <translation>Das ist die fehlende %1: %2.</translation>
    </message>
    <message>
        <source>Held already at %1: %2.</source>
        <translation>Schon vorhanden bei %1: %2.</translation>
    </message>
    <message>
        <source>It was retired or written off at %1: %2.</source>
        <translation>Bei %1 ausgesondert oder abgeschrieben: %2.</translation>
    </message>
    <message>
        <source>Nothing in the catalogue is this recording: it is new.</source>
        <translation>Nichts im Katalog ist diese Aufnahme: sie ist neu.</translation>
    </message>
    <message>
        <source>It was not examined yet.</source>
        <translation>Es wurde noch nicht untersucht.</translation>
    </message>
    <message>
        <source> It was put at %1.</source>
        <translation> Es wurde abgelegt bei %1.</translation>
    </message>
    <message>
        <source>%1, %2, %3.</source>
        <translation>%1, %2, %3.</translation>
    </message>
    <message>
        <source>of a length that is not known</source>
        <translation>von unbekannter Länge</translation>
    </message>
    <message>
        <source>missing here</source>
        <translation>fehlt hier</translation>
    </message>
    <message>
        <source>held</source>
        <translation>vorhanden</translation>
    </message>
    <message>
        <source>retired</source>
        <translation>ausgesondert</translation>
    </message>
    <message>
        <source>new</source>
        <translation>neu</translation>
    </message>
    <message>
        <source>It is</source>
        <translation>Es ist</translation>
    </message>
    <message>
        <source>to be let go of</source>
        <translation>freizugeben</translation>
    </message>
    <message>
        <source>to be taken</source>
        <translation>zu nehmen</translation>
    </message>
    <message>
        <source>taken</source>
        <translation>genommen</translation>
    </message>
    <message>
        <source>Name</source>
        <translation>Name</translation>
    </message>
    <message>
        <source>%1, and %2 more</source>
        <translation>%1 und %2 weitere</translation>
    </message>
    <message>
        <source>How whole</source>
        <translation>Wie ganz</translation>
    </message>
    <message>
        <source>Format</source>
        <translation>Format</translation>
    </message>
    <message>
        <source>Length</source>
        <translation>Länge</translation>
    </message>
    <message>
        <source>Size</source>
        <translation>Größe</translation>
    </message>
    <message>
        <source>Its place</source>
        <translation>Sein Platz</translation>
    </message>
    <message>
        <source>not known</source>
        <translation>nicht bekannt</translation>
    </message>
</context>
<context>
    <name>sober::app::FixityDesk</name>
    <message>
        <source>Fixity</source>
        <translation>Unversehrtheit</translation>
    </message>
    <message>
        <source>Has anything changed on its own?</source>
        <translation>Hat sich etwas von selbst geändert?</translation>
    </message>
    <message>
        <source>Which holdings</source>
        <translation>Welche Dateien</translation>
    </message>
    <message>
        <source>What happened</source>
        <translation>Was geschah</translation>
    </message>
    <message>
        <source>Bytes around the first difference</source>
        <translation>Bytes um den ersten Unterschied</translation>
    </message>
    <message>
        <source>Volume</source>
        <translation>Datenträger</translation>
    </message>
    <message>
        <source> (away)</source>
        <translation> (nicht da)</translation>
    </message>
    <message>
        <source>File</source>
        <translation>Datei</translation>
    </message>
    <message>
        <source>Found</source>
        <translation>Gefunden</translation>
    </message>
    <message>
        <source>Healthy copies</source>
        <translation>Gesunde Kopien</translation>
    </message>
    <message>
        <source>can be put together</source>
        <translation>zusammensetzbar</translation>
    </message>
    <message>
        <source>none at hand</source>
        <translation>keine zur Hand</translation>
    </message>
    <message>
        <source>On the docket</source>
        <translation>Auf dem Laufzettel</translation>
    </message>
    <message>
        <source>Holdings that are not what was recorded</source>
        <translation>Dateien, die nicht sind, was verzeichnet war</translation>
    </message>
    <message>
        <source>Nothing has drifted. Verify reads everything again and compares it with what was recorded.</source>
        <translation>Nichts ist abgewichen. Prüfen liest alles neu und vergleicht es mit dem Verzeichneten.</translation>
    </message>
    <message>
        <source>Verify all</source>
        <translation>Alles prüfen</translation>
    </message>
    <message>
        <source>Read every holding at hand again and compare it with what was recorded</source>
        <translation>Jede Datei zur Hand neu lesen und mit dem Verzeichneten vergleichen</translation>
    </message>
    <message>
        <source>What is due</source>
        <translation>Was fällig ist</translation>
    </message>
    <message>
        <source>Only what was not read for longer than its volume&apos;s period</source>
        <translation>Nur was länger nicht gelesen wurde, als es die Frist des Datenträgers vorsieht</translation>
    </message>
    <message>
        <source>Mend</source>
        <translation>Heilen</translation>
    </message>
    <message>
        <source>Put back what was recorded: from a healthy copy, or block by block from damaged ones</source>
        <translation>Das Verzeichnete zurückholen: aus einer gesunden Kopie oder Block für Block aus beschädigten</translation>
    </message>
    <message>
        <source>Accept…</source>
        <translation>Annehmen…</translation>
    </message>
    <message>
        <source>Take the selected as they are now for what they should be</source>
        <translation>Die gewählten, wie sie jetzt sind, für das Richtige nehmen</translation>
    </message>
    <message>
        <source>Look in a folder…</source>
        <translation>In Ordner suchen…</translation>
    </message>
    <message>
        <source>Look in a backup or another folder, which need be no volume, for healthy copies of what drifted or is missing</source>
        <translation>In einer Sicherung oder einem anderen Ordner, der kein Datenträger sein muss, nach gesunden Kopien des Abgewichenen oder Fehlenden suchen</translation>
    </message>
    <message>
        <source>Undecide</source>
        <translation>Unentschieden</translation>
    </message>
    <message>
        <source>What has changed since it was recorded (%1)</source>
        <translation>Was sich seit dem Verzeichnen geändert hat (%1)</translation>
    </message>
    <message>
        <source>What was never sound, or is odd (%1)</source>
        <translation>Was nie heil war oder seltsam ist (%1)</translation>
    </message>
    <message>
        <source>%1 Recorded: %2, written %3. Now: %4, written %5.</source>
        <translation>%1 Verzeichnet: %2, geschrieben %3. Jetzt: %4, geschrieben %5.</translation>
    </message>
    <message>
        <source>No healthy copy is at hand to show what it was.</source>
        <translation>Es ist keine gesunde Kopie zur Hand, die zeigen könnte, was es war.</translation>
    </message>
    <message>
        <source>Reading …</source>
        <translation>Wird gelesen …</translation>
    </message>
    <message>
        <source>now, from byte %1</source>
        <translation>jetzt, ab Byte %1</translation>
    </message>
    <message>
        <source>healthy copy</source>
        <translation>gesunde Kopie</translation>
    </message>
    <message>
        <source>The healthy copy is the same there by now: verify again.</source>
        <translation>Die gesunde Kopie ist dort inzwischen gleich: prüfen Sie noch einmal.</translation>
    </message>
    <message>
        <source>It was like this when it was recorded. Only stray bytes in MP3 and Ogg can be left out; look on Copies whether a better one is there.</source>
        <translation>So war es schon beim Verzeichnen. Nur verirrte Bytes in MP3 und Ogg lassen sich weglassen; sehen Sie unter Kopien nach, ob eine bessere da ist.</translation>
    </message>
    <message>
        <source>No copy at hand holds what was recorded: bring the volume or backup that does, and survey it.</source>
        <translation>Keine Kopie zur Hand hat, was verzeichnet war: holen Sie den Datenträger oder die Sicherung, die es hat, und erfassen Sie sie.</translation>
    </message>
    <message>
        <source>Where to look for healthy copies</source>
        <translation>Wo nach gesunden Kopien zu suchen ist</translation>
    </message>
    <message>
        <source>Accept the change</source>
        <translation>Die Änderung annehmen</translation>
    </message>
    <message>
        <source>%1 will stand on the docket. Once carried out, the content as it is now is what is verified against. No file changes.</source>
        <translation>%1 wird auf dem Laufzettel stehen. Ist es ausgeführt, wird gegen den jetzigen Inhalt geprüft. Keine Datei ändert sich.</translation>
    </message>
    <message>
        <source>Put on the docket</source>
        <translation>Auf den Laufzettel</translation>
    </message>
    <message>
        <source>I edited the tags</source>
        <translation>Ich habe die Tags bearbeitet</translation>
    </message>
    <message>
        <source>I replaced it</source>
        <translation>Ich habe sie ersetzt</translation>
    </message>
    <message>
        <source>I edited the audio</source>
        <translation>Ich habe den Ton bearbeitet</translation>
    </message>
</context>
<context>
    <name>sober::app::ForgetWindow</name>
    <message>
        <source>%1 (%2) leave the catalogue with it. %3 of them are on another volume too, %4 nowhere else.</source>
        <translation>Mit ihm verlassen den Katalog: %1 (%2). Davon sind auch auf einem anderen Datenträger: %3, nirgends sonst: %4.</translation>
    </message>
    <message>
        <source>%1 of players&apos; lists lead there. The lists stay as they are.</source>
        <translation>Dorthin führen von Listen der Abspieler: %1. Die Listen bleiben, wie sie sind.</translation>
    </message>
    <message>
        <source>%1 of players lie on it. They stay theirs, and are read where they lie.</source>
        <translation>Von Abspielern liegen darauf: %1. Sie bleiben deren Listen und werden gelesen, wo sie liegen.</translation>
    </message>
    <message>
        <source>What was done there cannot be taken back any more: %1 of the ledger. Their history stays.</source>
        <translation>Was dort getan wurde, lässt sich nicht mehr zurücknehmen, im Protokoll: %1. Die Geschichte bleibt.</translation>
    </message>
    <message>
        <source>Forget %1</source>
        <translation>%1 vergessen</translation>
    </message>
    <message>
        <source>%1, %2. Nothing on it is changed.</source>
        <translation>%1, %2. Nichts darauf wird geändert.</translation>
    </message>
    <message>
        <source>at hand</source>
        <translation>zur Hand</translation>
    </message>
    <message>
        <source>away</source>
        <translation>nicht da</translation>
    </message>
    <message>
        <source>Looking at what leaves with it…</source>
        <translation>Was mit ihm geht, wird ermittelt…</translation>
    </message>
    <message>
        <source>Forget this volume</source>
        <translation>Diesen Datenträger vergessen</translation>
    </message>
</context>
<context>
    <name>sober::app::FoundPanel</name>
    <message>
        <source>retired</source>
        <translation>ausgesondert</translation>
    </message>
    <message>
        <source>written off</source>
        <translation>abgeschrieben</translation>
    </message>
    <message>
        <source>missing</source>
        <translation>fehlt</translation>
    </message>
    <message>
        <source>left out</source>
        <translation>ausgelassen</translation>
    </message>
    <message>
        <source>forgotten with its volume</source>
        <translation>mit dem Datenträger vergessen</translation>
    </message>
    <message>
        <source>damaged</source>
        <translation>beschädigt</translation>
    </message>
    <message>
        <source>not examined</source>
        <translation>nicht untersucht</translation>
    </message>
    <message>
        <source>Where it lies</source>
        <translation>Wo es liegt</translation>
    </message>
    <message>
        <source>How to reach it</source>
        <translation>Wie man sie erreicht</translation>
    </message>
    <message>
        <source>Its other copies</source>
        <translation>Ihre anderen Kopien</translation>
    </message>
    <message>
        <source>Lists that lead to it</source>
        <translation>Listen, die zu ihr führen</translation>
    </message>
    <message>
        <source>The chosen one</source>
        <translation>Die gewählte</translation>
    </message>
    <message>
        <source>Other copies</source>
        <translation>Andere Kopien</translation>
    </message>
    <message>
        <source>In lists</source>
        <translation>In Listen</translation>
    </message>
    <message>
        <source>Choose one of the list to see where it lies, its copies and its lists.</source>
        <translation>Wählen Sie eine aus der Liste, um zu sehen, wo sie liegt, ihre Kopien und ihre Listen.</translation>
    </message>
    <message>
        <source>nothing is chosen</source>
        <translation>nichts ist gewählt</translation>
    </message>
    <message>
        <source>%1; %2</source>
        <translation>%1; %2</translation>
    </message>
    <message>
        <source> (away)</source>
        <translation> (nicht da)</translation>
    </message>
    <message>
        <source>none that is known</source>
        <translation>keine bekannt</translation>
    </message>
    <message>
        <source>–</source>
        <translation>–</translation>
    </message>
    <message>
        <source>in no list</source>
        <translation>in keiner Liste</translation>
    </message>
    <message>
        <source>State</source>
        <translation>Stand</translation>
    </message>
    <message>
        <source>to retire</source>
        <translation>auszusondern</translation>
    </message>
    <message>
        <source>to copy</source>
        <translation>zu kopieren</translation>
    </message>
    <message>
        <source>to move</source>
        <translation>zu verschieben</translation>
    </message>
    <message>
        <source>Title</source>
        <translation>Titel</translation>
    </message>
    <message>
        <source>Volume</source>
        <translation>Datenträger</translation>
    </message>
    <message>
        <source>Folder</source>
        <translation>Ordner</translation>
    </message>
    <message>
        <source>Claims</source>
        <translation>Angaben</translation>
    </message>
    <message>
        <source>Length</source>
        <translation>Länge</translation>
    </message>
    <message>
        <source>Copies</source>
        <translation>Kopien</translation>
    </message>
    <message>
        <source>Others that carry this recording</source>
        <translation>Andere mit dieser Aufnahme</translation>
    </message>
    <message>
        <source>Lists</source>
        <translation>Listen</translation>
    </message>
</context>
<context>
    <name>sober::app::HelpWindow</name>
    <message>
        <source>&lt;h2&gt;What it is made of&lt;/h2&gt;&lt;p&gt;Sober Archivist %1. Free software: you may redistribute and change it under the GNU General Public License, version 3 or later. There is no warranty.&lt;/p&gt;&lt;p&gt;It works with these libraries, each under its own licence:&lt;/p&gt;&lt;ul&gt;&lt;li&gt;Qt %2 (LGPL 3)&lt;/li&gt;&lt;li&gt;FFmpeg: libavformat, libavcodec, libswresample, libswscale (LGPL 2.1 and GPL 2 or later)&lt;/li&gt;&lt;li&gt;SQLite (public domain), SQLiteCpp (MIT)&lt;/li&gt;&lt;li&gt;TagLib (LGPL 2.1, MPL 1.1)&lt;/li&gt;&lt;li&gt;Chromaprint (LGPL 2.1)&lt;/li&gt;&lt;li&gt;FFTW (GPL 2 or later)&lt;/li&gt;&lt;li&gt;OpenSSL (Apache 2.0), xxHash (BSD 2-clause)&lt;/li&gt;&lt;li&gt;libcdio and libcdio-paranoia (GPL 3 or later)&lt;/li&gt;&lt;li&gt;The Sleuth Kit (IBM, CPL and GPL 2), libarchive (BSD 2-clause)&lt;/li&gt;&lt;li&gt;oneTBB (Apache 2.0), {fmt} (MIT), nlohmann JSON (MIT), pugixml (MIT), CLI11 (BSD 3-clause)&lt;/li&gt;&lt;li&gt;utf8proc (MIT), zlib (zlib), Zstandard (BSD 3-clause), libogg (BSD 3-clause), libblkid, libmount and libsystemd (LGPL 2.1), libseccomp (LGPL 2.1), curl (curl)&lt;/li&gt;&lt;/ul&gt;&lt;p&gt;Debian&apos;s packages of these hold the full texts, below /usr/share/doc.&lt;/p&gt;</source>
        <translation>&lt;h2&gt;Woraus es gemacht ist&lt;/h2&gt;&lt;p&gt;Sober Archivist %1. Freie Software: Sie dürfen sie nach der GNU General Public License, Version 3 oder später, weitergeben und ändern. Es gibt keine Gewährleistung.&lt;/p&gt;&lt;p&gt;Es arbeitet mit diesen Bibliotheken, jede unter ihrer eigenen Lizenz:&lt;/p&gt;&lt;ul&gt;&lt;li&gt;Qt %2 (LGPL 3)&lt;/li&gt;&lt;li&gt;FFmpeg: libavformat, libavcodec, libswresample, libswscale (LGPL 2.1 und GPL 2 oder später)&lt;/li&gt;&lt;li&gt;SQLite (gemeinfrei), SQLiteCpp (MIT)&lt;/li&gt;&lt;li&gt;TagLib (LGPL 2.1, MPL 1.1)&lt;/li&gt;&lt;li&gt;Chromaprint (LGPL 2.1)&lt;/li&gt;&lt;li&gt;FFTW (GPL 2 oder später)&lt;/li&gt;&lt;li&gt;OpenSSL (Apache 2.0), xxHash (BSD, 2 Klauseln)&lt;/li&gt;&lt;li&gt;libcdio und libcdio-paranoia (GPL 3 oder später)&lt;/li&gt;&lt;li&gt;The Sleuth Kit (IBM, CPL und GPL 2), libarchive (BSD, 2 Klauseln)&lt;/li&gt;&lt;li&gt;oneTBB (Apache 2.0), {fmt} (MIT), nlohmann JSON (MIT), pugixml (MIT), CLI11 (BSD, 3 Klauseln)&lt;/li&gt;&lt;li&gt;utf8proc (MIT), zlib (zlib), Zstandard (BSD, 3 Klauseln), libogg (BSD, 3 Klauseln), libblkid, libmount und libsystemd (LGPL 2.1), libseccomp (LGPL 2.1), curl (curl)&lt;/li&gt;&lt;/ul&gt;&lt;p&gt;Debians Pakete enthalten die vollen Texte, unter /usr/share/doc.&lt;/p&gt;</translation>
    </message>
    <message>
        <source>&lt;h2&gt;What the marks mean&lt;/h2&gt;&lt;p&gt;All are drawn from one ring, each with a form of its own: none is told by its colour alone.&lt;/p&gt;&lt;table cellpadding=&quot;4&quot;&gt;</source>
        <translation>&lt;h2&gt;Was die Zeichen bedeuten&lt;/h2&gt;&lt;p&gt;Alle sind aus einem Ring gezeichnet, jedes mit eigener Form: keines ist allein an der Farbe zu erkennen.&lt;/p&gt;&lt;table cellpadding=&quot;4&quot;&gt;</translation>
    </message>
    <message>
        <source>Guide</source>
        <translation>Anleitung</translation>
    </message>
    <message>
        <source>What the marks mean</source>
        <translation>Was die Zeichen bedeuten</translation>
    </message>
    <message>
        <source>All keys</source>
        <translation>Alle Tasten</translation>
    </message>
    <message>
        <source>What it is made of</source>
        <translation>Woraus es gemacht ist</translation>
    </message>
    <message>
        <source>Search the guide</source>
        <translation>In der Anleitung suchen</translation>
    </message>
    <message>
        <source>Headings</source>
        <translation>Überschriften</translation>
    </message>
    <message>
        <source>What it says</source>
        <translation>Was sie sagt</translation>
    </message>
    <message>
        <source>Close</source>
        <translation>Schließen</translation>
    </message>
    <message>
        <source>No part of the guide holds these words.</source>
        <translation>Kein Teil der Anleitung enthält diese Wörter.</translation>
    </message>
    <message>
        <source>&lt;h2&gt;All keys&lt;/h2&gt;&lt;p&gt;In lists and pictures the arrow keys, Page Up and Page Down, Home and End go about, and Space chooses. Windows that are opened name their keys on their buttons.&lt;/p&gt;</source>
        <translation>&lt;h2&gt;Alle Tasten&lt;/h2&gt;&lt;p&gt;In Listen und Bildern gehen die Pfeiltasten, Bild auf und Bild ab, Pos1 und Ende umher, und die Leertaste wählt. Fenster, die aufgehen, nennen ihre Tasten auf den Knöpfen.&lt;/p&gt;</translation>
    </message>
    <message>
        <source>Everywhere</source>
        <translation>Überall</translation>
    </message>
</context>
<context>
    <name>sober::app::HitsChart</name>
    <message>
        <source>In which folders of which volumes it was found</source>
        <translation>In welchen Ordnern welcher Datenträger es gefunden wurde</translation>
    </message>
    <message>
        <source>%1 of %2</source>
        <translation>%1 von %2</translation>
    </message>
    <message>
        <source>%1: %2
%3 of %4, present or missed</source>
        <translation>%1: %2
%3 von %4, da oder vermisst</translation>
    </message>
    <message>
        <source>(top folder)</source>
        <translation>(oberster Ordner)</translation>
    </message>
</context>
<context>
    <name>sober::app::IntakeDesk</name>
    <message>
        <source>Intake</source>
        <translation>Eingang</translation>
    </message>
    <message>
        <source>What came, and is it better than what I have?</source>
        <translation>Was kam, und ist es besser als das, was ich habe?</translation>
    </message>
    <message>
        <source>How far the bandwidth reaches: each arrival (filled) beside the best that is held of it (ring)</source>
        <translation>Wie weit die Bandbreite reicht: jeder Neuzugang (gefüllt) neben dem besten Vorhandenen (Ring)</translation>
    </message>
    <message>
        <source>%1 carried out.</source>
        <translation>%1 ausgeführt.</translation>
    </message>
    <message>
        <source> Refused: %1. %2</source>
        <translation> Abgelehnt: %1. %2</translation>
    </message>
    <message>
        <source>Look</source>
        <translation>Nachsehen</translation>
    </message>
    <message>
        <source>Survey the inboxes and judge what lies there</source>
        <translation>Die Eingangsordner erfassen und beurteilen, was darin liegt</translation>
    </message>
    <message>
        <source>Name an inbox…</source>
        <translation>Eingangsordner nennen…</translation>
    </message>
    <message>
        <source>A folder where new audio lands, and where its arrivals are filed</source>
        <translation>Ein Ordner, in dem Neues ankommt, und wo es eingeordnet wird</translation>
    </message>
    <message>
        <source>No inbox any more</source>
        <translation>Kein Eingangsordner mehr</translation>
    </message>
    <message>
        <source>The inbox of the selected arrival, or the only one; nothing of it changes</source>
        <translation>Den Eingangsordner des gewählten Neuzugangs, oder den einzigen; nichts darin ändert sich</translation>
    </message>
    <message>
        <source>Could be better</source>
        <translation>Was besser ginge</translation>
    </message>
    <message>
        <source>What is held that could be better, and where a better one is to be had</source>
        <translation>Was vorhanden ist und besser sein könnte, und woher Besseres zu haben ist</translation>
    </message>
    <message>
        <source>Disc</source>
        <translation>Disc</translation>
    </message>
    <message>
        <source>An audio disc: what is on it, and reading it</source>
        <translation>Eine Audio-Disc: was darauf ist, und sie lesen</translation>
    </message>
    <message>
        <source>Take in…</source>
        <translation>Aufnehmen…</translation>
    </message>
    <message>
        <source>Do with the selected what stands beside them: file, replace, let go of what is held; what is to be looked at is filed</source>
        <translation>Mit den gewählten tun, was daneben steht: einordnen, ersetzen, Vorhandenes freigeben; was anzusehen ist, wird eingeordnet</translation>
    </message>
    <message>
        <source>Retire</source>
        <translation>Aussondern</translation>
    </message>
    <message>
        <source>Put the selected on the docket, to go to the trash whatever is advised</source>
        <translation>Die gewählten auf den Laufzettel setzen, für den Papierkorb, was auch geraten ist</translation>
    </message>
    <message>
        <source>Replace…</source>
        <translation>Ersetzen…</translation>
    </message>
    <message>
        <source>What is held of the chosen one by it: at its place, with its tags and lists</source>
        <translation>Was von der gewählten vorhanden ist, durch sie: an dessen Ort, mit dessen Tags und Listen</translation>
    </message>
    <message>
        <source>Leave</source>
        <translation>Lassen</translation>
    </message>
    <message>
        <source>Do not show the selected any more, until the program is started again</source>
        <translation>Die gewählten nicht mehr zeigen, bis das Programm wieder gestartet wird</translation>
    </message>
    <message>
        <source>Tags…</source>
        <translation>Tags…</translation>
    </message>
    <message>
        <source>Edit the tags of the selected, or of all, in a table</source>
        <translation>Die Tags der gewählten oder aller in einer Tabelle bearbeiten</translation>
    </message>
    <message>
        <source>Mend tags</source>
        <translation>Tags richten</translation>
    </message>
    <message>
        <source>As proposed, before they are filed</source>
        <translation>Wie vorgeschlagen, vor dem Einordnen</translation>
    </message>
    <message>
        <source>Arrivals</source>
        <translation>Neuzugänge</translation>
    </message>
    <message>
        <source>Nothing has arrived. N names a folder where new audio lands; L looks at what lies there now.</source>
        <translation>Nichts ist angekommen. N nennt einen Ordner, in dem Neues ankommt; L sieht nach, was jetzt dort liegt.</translation>
    </message>
    <message>
        <source>The chosen arrival</source>
        <translation>Der gewählte Neuzugang</translation>
    </message>
    <message>
        <source>Why</source>
        <translation>Warum</translation>
    </message>
    <message>
        <source>What is held of it</source>
        <translation>Was davon vorhanden ist</translation>
    </message>
    <message>
        <source>Proposals for its tags</source>
        <translation>Vorschläge für seine Tags</translation>
    </message>
    <message>
        <source>Where new audio lands</source>
        <translation>Wo Neues ankommt</translation>
    </message>
    <message>
        <source>Where its arrivals are filed</source>
        <translation>Wo es eingeordnet wird</translation>
    </message>
    <message>
        <source>In which folders, under which names</source>
        <translation>In welche Ordner, unter welchen Namen</translation>
    </message>
    <message>
        <source>Fields and quoted text, “/” between folders; “|” says what stands in for a field that is empty.</source>
        <translation>Felder und Text in Anführungszeichen, „/“ zwischen Ordnern; „|“ sagt, was für ein leeres Feld einspringt.</translation>
    </message>
    <message>
        <source>Name the inbox</source>
        <translation>Den Eingangsordner nennen</translation>
    </message>
    <message>
        <source>A list of the latest arrivals</source>
        <translation>Eine Liste der neuesten Zugänge</translation>
    </message>
    <message>
        <source>A file that a player reads, ending in .m3u8, .xspf or .pls: the hundred that were filed last, renewed whenever something is taken in. Empty for none.</source>
        <translation>Eine Datei, die ein Abspieler liest und die auf .m3u8, .xspf oder .pls endet: die hundert zuletzt eingeordneten, erneuert, sooft etwas aufgenommen wird. Leer heißt keine.</translation>
    </message>
    <message>
        <source>Choose an arrival of the inbox first.</source>
        <translation>Wählen Sie zuerst einen Neuzugang des Eingangsordners.</translation>
    </message>
    <message>
        <source>Nothing at hand is held of it.</source>
        <translation>Nichts davon ist zur Hand.</translation>
    </message>
    <message>
        <source>Choose an arrival to see what is held of it and what is proposed.</source>
        <translation>Wählen Sie einen Neuzugang, um zu sehen, was davon da ist und was vorgeschlagen wird.</translation>
    </message>
    <message>
        <source>nothing is chosen</source>
        <translation>nichts ist gewählt</translation>
    </message>
    <message>
        <source>It would be filed at %1.</source>
        <translation>Er würde eingeordnet bei %1.</translation>
    </message>
    <message>
        <source>%1: %2 → %3. %4</source>
        <translation>%1: %2 → %3. %4</translation>
    </message>
    <message>
        <source>missing</source>
        <translation>fehlt</translation>
    </message>
    <message>
        <source>nothing</source>
        <translation>nichts</translation>
    </message>
    <message>
        <source>None: they are as they should be.</source>
        <translation>Keine: sie sind, wie sie sein sollen.</translation>
    </message>
</context>
<context>
    <name>sober::app::IntakeWindow</name>
    <message>
        <source>goes to the trash: %1</source>
        <translation>kommt in den Papierkorb: %1</translation>
    </message>
    <message>
        <source>%1 is emptied</source>
        <translation>%1 wird geleert</translation>
    </message>
    <message>
        <source>%1 becomes “%2”</source>
        <translation>%1 wird „%2“</translation>
    </message>
    <message>
        <source>is filed in %1%2</source>
        <translation>wird eingeordnet in %1%2</translation>
    </message>
    <message>
        <source> or where its mended tags say</source>
        <translation> oder wo ihre gerichteten Tags sagen</translation>
    </message>
    <message>
        <source>%1 goes to the trash, and what led there leads to the new one</source>
        <translation>%1 kommt in den Papierkorb, und was dorthin führte, führt zur neuen</translation>
    </message>
    <message>
        <source>Take in</source>
        <translation>Aufnehmen</translation>
    </message>
    <message>
        <source>Nothing has changed yet. What is filed is read back and proven before anything goes; all of it can be taken back from the ledger.</source>
        <translation>Noch hat sich nichts geändert. Was eingeordnet wird, wird zurückgelesen und bestätigt, bevor etwas geht; alles lässt sich im Protokoll zurücknehmen.</translation>
    </message>
    <message>
        <source>What will be done</source>
        <translation>Was getan wird</translation>
    </message>
    <message>
        <source>Carry out</source>
        <translation>Ausführen</translation>
    </message>
    <message>
        <source>Close</source>
        <translation>Schließen</translation>
    </message>
</context>
<context>
    <name>sober::app::LedgerDesk</name>
    <message>
        <source>Ledger</source>
        <translation>Protokoll</translation>
    </message>
    <message>
        <source>What was done, and can I take it back?</source>
        <translation>Was wurde getan, und kann ich es zurücknehmen?</translation>
    </message>
    <message>
        <source>Take back</source>
        <translation>Zurücknehmen</translation>
    </message>
    <message>
        <source>Entry</source>
        <translation>Eintrag</translation>
    </message>
    <message>
        <source>When</source>
        <translation>Wann</translation>
    </message>
    <message>
        <source>What</source>
        <translation>Was</translation>
    </message>
    <message>
        <source>Summary</source>
        <translation>Zusammenfassung</translation>
    </message>
    <message>
        <source>Entries of the ledger</source>
        <translation>Einträge des Protokolls</translation>
    </message>
    <message>
        <source>Nothing has been observed or done yet.</source>
        <translation>Noch wurde nichts beobachtet oder getan.</translation>
    </message>
    <message>
        <source>Outcome</source>
        <translation>Ergebnis</translation>
    </message>
    <message>
        <source>Action</source>
        <translation>Maßnahme</translation>
    </message>
    <message>
        <source>File</source>
        <translation>Datei</translation>
    </message>
    <message>
        <source>Set aside at, or why not</source>
        <translation>Beiseitegelegt bei, oder warum nicht</translation>
    </message>
    <message>
        <source>Actions of the entry</source>
        <translation>Maßnahmen des Eintrags</translation>
    </message>
    <message>
        <source>This entry changed nothing on any volume.</source>
        <translation>Dieser Eintrag hat auf keinem Datenträger etwas geändert.</translation>
    </message>
    <message>
        <source>Entry %1, %2</source>
        <translation>Eintrag %1, %2</translation>
    </message>
</context>
<context>
    <name>sober::app::LimitsWindow</name>
    <message>
        <source>What counts as a low bitrate</source>
        <translation>Was als niedrige Bitrate gilt</translation>
    </message>
    <message>
        <source>Lossy files that state less than this are under the limit.</source>
        <translation>Verlustbehaftete Dateien, die weniger angeben, sind unter der Grenze.</translation>
    </message>
    <message>
        <source> kbit/s</source>
        <translation> kbit/s</translation>
    </message>
    <message>
        <source>no limit</source>
        <translation>keine Grenze</translation>
    </message>
    <message>
        <source>Limit for %1</source>
        <translation>Grenze für %1</translation>
    </message>
    <message>
        <source>Use these limits</source>
        <translation>Diese Grenzen verwenden</translation>
    </message>
</context>
<context>
    <name>sober::app::LineageChart</name>
    <message>
        <source>Which member of the copy set is made from which</source>
        <translation>Welches Mitglied des Kopiensatzes aus welchem gemacht ist</translation>
    </message>
    <message>
        <source> × %1</source>
        <translation> × %1</translation>
    </message>
    <message>
        <source>and %1 more, listed below</source>
        <translation>und %1 weitere, unten aufgelistet</translation>
    </message>
    <message>
        <source>; its own evidence names this source</source>
        <translation>; der eigene Befund nennt diese Quelle</translation>
    </message>
</context>
<context>
    <name>sober::app::ListeningBar</name>
    <message>
        <source>Place in the recording</source>
        <translation>Stelle in der Aufnahme</translation>
    </message>
    <message>
        <source>Listening</source>
        <translation>Anhören</translation>
    </message>
    <message>
        <source>Play</source>
        <translation>Abspielen</translation>
    </message>
    <message>
        <source>No audio device: listening is not possible here.</source>
        <translation>Kein Audiogerät: Anhören ist hier nicht möglich.</translation>
    </message>
    <message>
        <source>An excerpt is kept: all of its %1.</source>
        <translation>Eine Hörprobe ist da: alle %1.</translation>
    </message>
    <message>
        <source>An excerpt is kept: %1 to %2 of %3.</source>
        <translation>Eine Hörprobe ist da: %1 bis %2 von %3.</translation>
    </message>
    <message>
        <source>%1 No audio device to play it.</source>
        <translation>%1 Kein Audiogerät zum Abspielen.</translation>
    </message>
    <message>
        <source>The audio device takes no 16-bit stereo sound.</source>
        <translation>Das Audiogerät nimmt keinen 16-Bit-Stereoton an.</translation>
    </message>
    <message>
        <source>The audio device could not be opened.</source>
        <translation>Das Audiogerät ließ sich nicht öffnen.</translation>
    </message>
    <message>
        <source>Stop   P</source>
        <translation>Anhalten   P</translation>
    </message>
    <message>
        <source>Play   P</source>
        <translation>Abspielen   P</translation>
    </message>
    <message>
        <source>Excerpt: %1 of %2</source>
        <translation>Hörprobe: %1 von %2</translation>
    </message>
</context>
<context>
    <name>sober::app::LostPlaceDetail</name>
    <message>
        <source>What is known of the selected place</source>
        <translation>Was von dem gewählten Ort bekannt ist</translation>
    </message>
    <message>
        <source>Candidate</source>
        <translation>Anwärter</translation>
    </message>
    <message>
        <source>Tags</source>
        <translation>Tags</translation>
    </message>
    <message>
        <source>none</source>
        <translation>keine</translation>
    </message>
    <message>
        <source>Length</source>
        <translation>Länge</translation>
    </message>
    <message>
        <source>Checksum</source>
        <translation>Prüfsumme</translation>
    </message>
    <message>
        <source>not read</source>
        <translation>nicht gelesen</translation>
    </message>
    <message>
        <source>Candidates</source>
        <translation>Anwärter</translation>
    </message>
    <message>
        <source>No file of that name was met.</source>
        <translation>Keine Datei dieses Namens wurde angetroffen.</translation>
    </message>
    <message>
        <source>How the candidate fits</source>
        <translation>Wie der Anwärter passt</translation>
    </message>
    <message>
        <source>This is it</source>
        <translation>Das ist sie</translation>
    </message>
    <message>
        <source>Link the selected place to the selected candidate; its folder tree follows</source>
        <translation>Den gewählten Ort mit dem gewählten Anwärter verknüpfen; sein Ordnerbaum folgt</translation>
    </message>
    <message>
        <source>%1 of %2</source>
        <translation>%1 von %2</translation>
    </message>
    <message>
        <source>nothing but its name is known</source>
        <translation>nur der Name ist bekannt</translation>
    </message>
    <message>
        <source>never catalogued there</source>
        <translation>dort nie erfasst</translation>
    </message>
    <message>
        <source>catalogued there once, checksum %1</source>
        <translation>dort einmal erfasst, Prüfsumme %1</translation>
    </message>
</context>
<context>
    <name>sober::app::MainWindow</name>
    <message>
        <source>Sober Archivist</source>
        <translation>Sober Archivist</translation>
    </message>
    <message>
        <source>Why the catalogue is closed</source>
        <translation>Warum der Katalog geschlossen ist</translation>
    </message>
    <message>
        <source>Try again</source>
        <translation>Noch einmal versuchen</translation>
    </message>
    <message>
        <source>Shelf</source>
        <translation>Regal</translation>
    </message>
    <message>
        <source>Survey a folder…</source>
        <translation>Ordner erfassen…</translation>
    </message>
    <message>
        <source>Ctrl+N, or drop a folder on this window</source>
        <translation>Strg+N, oder einen Ordner auf dieses Fenster ziehen</translation>
    </message>
    <message>
        <source>Message</source>
        <translation>Mitteilung</translation>
    </message>
    <message>
        <source>&amp;Collection</source>
        <translation>&amp;Sammlung</translation>
    </message>
    <message>
        <source>&amp;Survey a folder or drive…</source>
        <translation>Ordner oder Laufwerk &amp;erfassen…</translation>
    </message>
    <message>
        <source>Survey all volumes &amp;again</source>
        <translation>Alle Datenträger &amp;neu erfassen</translation>
    </message>
    <message>
        <source>&amp;Check on a schedule…</source>
        <translation>&amp;Regelmäßig prüfen…</translation>
    </message>
    <message>
        <source>&amp;Labels for the drives…</source>
        <translation>E&amp;tiketten für die Laufwerke…</translation>
    </message>
    <message>
        <source>Make a &amp;report…</source>
        <translation>Einen &amp;Bericht machen…</translation>
    </message>
    <message>
        <source>Sa&amp;ve the catalogue…</source>
        <translation>Den Katalog &amp;sichern…</translation>
    </message>
    <message>
        <source>&amp;Bring a saved catalogue back…</source>
        <translation>Gesicherten Katalog &amp;zurückholen…</translation>
    </message>
    <message>
        <source>Carry it al&amp;ong…</source>
        <translation>&amp;Mitnehmen…</translation>
    </message>
    <message>
        <source>&amp;Take another catalogue in…</source>
        <translation>&amp;Anderen Katalog aufnehmen…</translation>
    </message>
    <message>
        <source>Which catalogue?</source>
        <translation>Welcher Katalog?</translation>
    </message>
    <message>
        <source>&amp;Quit</source>
        <translation>Been&amp;den</translation>
    </message>
    <message>
        <source>&amp;Desk</source>
        <translation>&amp;Pult</translation>
    </message>
    <message>
        <source>&amp;Find a recording</source>
        <translation>Eine Aufnahme &amp;suchen</translation>
    </message>
    <message>
        <source>Read the &amp;docket through…</source>
        <translation>Den &amp;Laufzettel durchlesen…</translation>
    </message>
    <message>
        <source>&amp;View</source>
        <translation>&amp;Ansicht</translation>
    </message>
    <message>
        <source>&amp;Light paper</source>
        <translation>&amp;Helles Papier</translation>
    </message>
    <message>
        <source>&amp;Dark paper</source>
        <translation>&amp;Dunkles Papier</translation>
    </message>
    <message>
        <source>Size %1 %</source>
        <translation>Größe %1 %</translation>
    </message>
    <message>
        <source>Everything is shown at %1 % from the next start on.</source>
        <translation>Ab dem nächsten Start wird alles mit %1 % gezeigt.</translation>
    </message>
    <message>
        <source>La&amp;nguage</source>
        <translation>&amp;Sprache</translation>
    </message>
    <message>
        <source>As the desktop has it</source>
        <translation>Wie auf dem Desktop</translation>
    </message>
    <message>
        <source>The program speaks this language from the next start on.</source>
        <translation>Ab dem nächsten Start spricht das Programm diese Sprache.</translation>
    </message>
    <message>
        <source>&amp;Help</source>
        <translation>&amp;Hilfe</translation>
    </message>
    <message>
        <source>About this &amp;desk</source>
        <translation>Über dieses &amp;Pult</translation>
    </message>
    <message>
        <source>All &amp;keys</source>
        <translation>Alle &amp;Tasten</translation>
    </message>
    <message>
        <source>What the ma&amp;rks mean</source>
        <translation>Was die &amp;Zeichen bedeuten</translation>
    </message>
    <message>
        <source>What it is &amp;made of</source>
        <translation>Woraus es &amp;gemacht ist</translation>
    </message>
    <message>
        <source>Write the report to</source>
        <translation>Den Bericht schreiben nach</translation>
    </message>
    <message>
        <source>Write the labels to</source>
        <translation>Die Etiketten schreiben nach</translation>
    </message>
    <message>
        <source>Save the catalogue as</source>
        <translation>Den Katalog sichern als</translation>
    </message>
    <message>
        <source>Which saved catalogue?</source>
        <translation>Welcher gesicherte Katalog?</translation>
    </message>
    <message>
        <source>After an interruption: %1</source>
        <translation>Nach einer Unterbrechung: %1</translation>
    </message>
    <message>
        <source>%1: %2 seen, %3 added, %4 changed, %5 moved, %6 missing, %7 could not be read%8.</source>
        <translation>%1: %2 gesehen, %3 neu, %4 geändert, %5 verschoben, %6 fehlen, %7 nicht lesbar%8.</translation>
    </message>
    <message>
        <source>; cancelled, what was read is kept</source>
        <translation>; abgebrochen, das Gelesene bleibt</translation>
    </message>
    <message>
        <source>Verified: %1 read, %2 as recorded, %3 drifted; %4 missing, %5 could not be read%6.</source>
        <translation>Geprüft: %1 gelesen, %2 wie verzeichnet, %3 abgewichen; %4 fehlen, %5 nicht lesbar%6.</translation>
    </message>
    <message>
        <source>; cancelled, the next goes on there</source>
        <translation>; abgebrochen, die nächste geht dort weiter</translation>
    </message>
    <message>
        <source>Looked through %1: %2 of what has drifted or is missing.</source>
        <translation>%1 durchgesehen: gefunden, was abgewichen ist oder fehlt: %2.</translation>
    </message>
    <message>
        <source>Taken back: %1.</source>
        <translation>Zurückgenommen: %1.</translation>
    </message>
    <message>
        <source>Survey a folder or drive</source>
        <translation>Ordner oder Laufwerk erfassen</translation>
    </message>
    <message>
        <source>&amp;High contrast</source>
        <translation>Hoher &amp;Kontrast</translation>
    </message>
</context>
<context>
    <name>sober::app::MeetWindow</name>
    <message>
        <source>Take another catalogue in</source>
        <translation>Anderen Katalog aufnehmen</translation>
    </message>
    <message>
        <source>%1. It is only read. What was seen last wins, and what only it knows is added.</source>
        <translation>%1. Er wird nur gelesen. Was zuletzt gesehen wurde, gilt, und was nur er weiß, kommt hinzu.</translation>
    </message>
    <message>
        <source>What it knows</source>
        <translation>Was er weiß</translation>
    </message>
    <message>
        <source>Holding both against each other…</source>
        <translation>Beide werden verglichen…</translation>
    </message>
    <message>
        <source>Take it in</source>
        <translation>Aufnehmen</translation>
    </message>
</context>
<context>
    <name>sober::app::MemberListening</name>
    <message>
        <source>%1 is away.</source>
        <translation>%1 ist nicht da.</translation>
    </message>
</context>
<context>
    <name>sober::app::MissingPanel</name>
    <message>
        <source>Missing holdings from remembered folders to where their content is now</source>
        <translation>Fehlende Dateien, von den erinnerten Ordnern zu dem Ort, an dem ihr Inhalt jetzt ist</translation>
    </message>
    <message>
        <source>last seen in</source>
        <translation>zuletzt gesehen in</translation>
    </message>
    <message>
        <source>the same bytes are now in</source>
        <translation>dieselben Bytes sind jetzt in</translation>
    </message>
    <message>
        <source>no volume that is catalogued</source>
        <translation>kein erfasster Datenträger</translation>
    </message>
    <message>
        <source>Nothing is missing.</source>
        <translation>Nichts fehlt.</translation>
    </message>
    <message>
        <source>%1 missing from %2</source>
        <translation>%1 fehlen von %2</translation>
    </message>
    <message>
        <source>Part of a path</source>
        <translation>Teil eines Pfads</translation>
    </message>
    <message>
        <source>Filter the missing by path</source>
        <translation>Die fehlenden nach Pfad eingrenzen</translation>
    </message>
    <message>
        <source>Write off</source>
        <translation>Abschreiben</translation>
    </message>
    <message>
        <source>Accept that the selected are gone: they are not shown as missing again</source>
        <translation>Hinnehmen, dass die gewählten verloren sind: sie werden nicht wieder als fehlend gezeigt</translation>
    </message>
    <message>
        <source>Wait</source>
        <translation>Warten</translation>
    </message>
    <message>
        <source>Take the selected off the docket: they stay missing until they are found</source>
        <translation>Die gewählten vom Laufzettel nehmen: sie bleiben fehlend, bis sie gefunden sind</translation>
    </message>
    <message>
        <source>Bring back</source>
        <translation>Zurückholen</translation>
    </message>
    <message>
        <source>Copy the same bytes from where they are to the place where they were</source>
        <translation>Dieselben Bytes von dort, wo sie sind, an den Ort kopieren, wo sie waren</translation>
    </message>
    <message>
        <source>State</source>
        <translation>Stand</translation>
    </message>
    <message>
        <source>to bring back</source>
        <translation>zurückzuholen</translation>
    </message>
    <message>
        <source>to write off</source>
        <translation>abzuschreiben</translation>
    </message>
    <message>
        <source>missing</source>
        <translation>fehlt</translation>
    </message>
    <message>
        <source>Title</source>
        <translation>Titel</translation>
    </message>
    <message>
        <source>Volume</source>
        <translation>Datenträger</translation>
    </message>
    <message>
        <source>Last place</source>
        <translation>Letzter Ort</translation>
    </message>
    <message>
        <source>Last seen</source>
        <translation>Zuletzt gesehen</translation>
    </message>
    <message>
        <source>Same bytes at</source>
        <translation>Gleiche Bytes bei</translation>
    </message>
    <message>
        <source>nowhere known</source>
        <translation>nirgends bekannt</translation>
    </message>
    <message>
        <source>Missing holdings</source>
        <translation>Fehlende Dateien</translation>
    </message>
    <message>
        <source>Nothing is missing. What a survey no longer finds is listed here; what lies on a volume that is away is not.</source>
        <translation>Nichts fehlt. Was eine Erfassung nicht mehr findet, steht hier; was auf einem Datenträger liegt, der nicht da ist, nicht.</translation>
    </message>
    <message>
        <source>Of the selected no copy is known. If a backup may have one, look in it from Fixity (Alt+4, then L).</source>
        <translation>Von den gewählten ist keine Kopie bekannt. Wenn eine Sicherung eine haben könnte, suchen Sie darin von Unversehrtheit aus (Alt+4, dann L).</translation>
    </message>
</context>
<context>
    <name>sober::app::MoveWindow</name>
    <message>
        <source>Put on the docket</source>
        <translation>Auf den Laufzettel</translation>
    </message>
    <message>
        <source>Copy out</source>
        <translation>Herauskopieren</translation>
    </message>
    <message>
        <source>Move</source>
        <translation>Verschieben</translation>
    </message>
    <message>
        <source>To be copied out of its archive: %1. The archive stays as it is.</source>
        <translation>Aus dem Archiv herauszukopieren: %1. Das Archiv bleibt, wie es ist.</translation>
    </message>
    <message>
        <source>To be moved: %1. Players&apos; lists follow. A move stays on its drive: what would leave it is refused on the docket.</source>
        <translation>Zu verschieben: %1. Die Listen der Abspieler folgen. Verschoben wird nur auf dem Laufwerk selbst: was es verlassen würde, wird auf dem Laufzettel abgelehnt.</translation>
    </message>
    <message>
        <source>New folder below it</source>
        <translation>Neuer Ordner darunter</translation>
    </message>
    <message>
        <source>none</source>
        <translation>keine</translation>
    </message>
    <message>
        <source>In a new folder</source>
        <translation>In einem neuen Ordner</translation>
    </message>
    <message>
        <source>Under the name</source>
        <translation>Unter dem Namen</translation>
    </message>
    <message>
        <source>Where it will be</source>
        <translation>Wo sie sein wird</translation>
    </message>
    <message>
        <source>Choose a volume or a folder.</source>
        <translation>Wählen Sie einen Datenträger oder einen Ordner.</translation>
    </message>
    <message>
        <source>That is an archive, and those are never written to.</source>
        <translation>Das ist ein Archiv, und in solche wird nie geschrieben.</translation>
    </message>
    <message>
        <source>A new folder is named as &quot;Choir&quot; or &quot;Choir/1974&quot;.</source>
        <translation>Ein neuer Ordner heißt etwa „Chor“ oder „Chor/1974“.</translation>
    </message>
    <message>
        <source>A name is needed, without a slash.</source>
        <translation>Ein Name wird gebraucht, ohne Schrägstrich.</translation>
    </message>
    <message>
        <source>It is there now. Choose another folder, or another name.</source>
        <translation>Dort ist sie jetzt. Wählen Sie einen anderen Ordner oder Namen.</translation>
    </message>
</context>
<context>
    <name>sober::app::NarrowingRow</name>
    <message>
        <source>Words, or parts of words, in titles, names, folders and lists</source>
        <translation>Wörter oder Teile von Wörtern in Titeln, Namen, Ordnern und Listen</translation>
    </message>
    <message>
        <source>Words to find</source>
        <translation>Gesuchte Wörter</translation>
    </message>
    <message>
        <source>kbit/s</source>
        <translation>kbit/s</translation>
    </message>
    <message>
        <source>96-160</source>
        <translation>96-160</translation>
    </message>
    <message>
        <source>length</source>
        <translation>Länge</translation>
    </message>
    <message>
        <source>2:00-5:00</source>
        <translation>2:00-5:00</translation>
    </message>
    <message>
        <source>years</source>
        <translation>Jahre</translation>
    </message>
    <message>
        <source>1970-1979</source>
        <translation>1970-1979</translation>
    </message>
    <message>
        <source>Only within: %1</source>
        <translation>Nur innerhalb: %1</translation>
    </message>
    <message>
        <source>From and to, either may be left out, as %1</source>
        <translation>Von und bis, eines darf fehlen, wie %1</translation>
    </message>
    <message>
        <source>Only of a codec</source>
        <translation>Nur von einem Codec</translation>
    </message>
    <message>
        <source>all codecs</source>
        <translation>alle Codecs</translation>
    </message>
    <message>
        <source>Only with a verdict</source>
        <translation>Nur mit einem Urteil</translation>
    </message>
    <message>
        <source>any verdict</source>
        <translation>jedes Urteil</translation>
    </message>
    <message>
        <source>Only in a list or in none</source>
        <translation>Nur in einer Liste oder in keiner</translation>
    </message>
    <message>
        <source>in lists or not</source>
        <translation>in Listen oder nicht</translation>
    </message>
    <message>
        <source>in a list</source>
        <translation>in einer Liste</translation>
    </message>
    <message>
        <source>in no list</source>
        <translation>in keiner Liste</translation>
    </message>
</context>
<context>
    <name>sober::app::OverlayChart</name>
    <message>
        <source>Spectra of two members, and what is left after subtraction</source>
        <translation>Spektren zweier Mitglieder, und was nach dem Abziehen bleibt</translation>
    </message>
    <message>
        <source>Not examined yet.</source>
        <translation>Noch nicht untersucht.</translation>
    </message>
    <message>
        <source>left after subtraction, over time</source>
        <translation>was nach dem Abziehen bleibt, über die Zeit</translation>
    </message>
    <message>
        <source>0 dB</source>
        <translation>0 dB</translation>
    </message>
    <message>
        <source>%1 s</source>
        <translation>%1 s</translation>
    </message>
    <message>
        <source>%1 kHz, level in the loudest 5 % of the time:</source>
        <translation>%1 kHz, Pegel in den lautesten 5 % der Zeit:</translation>
    </message>
    <message>
        <source>%1: %2 dB</source>
        <translation>%1: %2 dB</translation>
    </message>
    <message>
        <source>at %1 s: %2 dB is left</source>
        <translation>bei %1 s: %2 dB bleiben</translation>
    </message>
</context>
<context>
    <name>sober::app::PeriodBox</name>
    <message>
        <source>all volumes</source>
        <translation>alle Datenträger</translation>
    </message>
    <message>
        <source>Whose period</source>
        <translation>Wessen Frist</translation>
    </message>
    <message>
        <source>due after </source>
        <translation>fällig nach </translation>
    </message>
    <message>
        <source> days</source>
        <translation> Tagen</translation>
    </message>
    <message>
        <source>Days after which a holding is due to be read again</source>
        <translation>Tage, nach denen eine Datei wieder zu lesen ist</translation>
    </message>
</context>
<context>
    <name>sober::app::PlaceTree</name>
    <message>
        <source>%1 h</source>
        <translation>%1 h</translation>
    </message>
    <message>
        <source>%1 min</source>
        <translation>%1 min</translation>
    </message>
    <message>
        <source>%1 s</source>
        <translation>%1 s</translation>
    </message>
    <message>
        <source>Volumes and their folders</source>
        <translation>Datenträger und ihre Ordner</translation>
    </message>
    <message>
        <source>Place</source>
        <translation>Ort</translation>
    </message>
    <message>
        <source>Held</source>
        <translation>Da</translation>
    </message>
    <message>
        <source>Length</source>
        <translation>Länge</translation>
    </message>
    <message>
        <source>everything</source>
        <translation>alles</translation>
    </message>
    <message>
        <source>%1, away</source>
        <translation>%1, nicht da</translation>
    </message>
    <message>
        <source>…</source>
        <translation>…</translation>
    </message>
    <message>
        <source> in %1</source>
        <translation> in %1</translation>
    </message>
</context>
<context>
    <name>sober::app::PolicyWindow</name>
    <message>
        <source>Keep it under this name</source>
        <translation>Unter diesem Namen behalten</translation>
    </message>
    <message>
        <source>Remove</source>
        <translation>Entfernen</translation>
    </message>
    <message>
        <source>leave sets whose best copy does not meet the first preference</source>
        <translation>Sätze lassen, deren beste Kopie den ersten Wunsch nicht erfüllt</translation>
    </message>
    <message>
        <source>Put on the docket</source>
        <translation>Auf den Laufzettel</translation>
    </message>
    <message>
        <source>Decide many sets</source>
        <translation>Viele Sätze entscheiden</translation>
    </message>
    <message>
        <source>What this would do</source>
        <translation>Was das täte</translation>
    </message>
    <message>
        <source>Policy</source>
        <translation>Richtlinie</translation>
    </message>
    <message>
        <source>what the evidence says</source>
        <translation>was der Befund sagt</translation>
    </message>
    <message>
        <source>Name of the policy</source>
        <translation>Name der Richtlinie</translation>
    </message>
    <message>
        <source>a name, to use it again</source>
        <translation>ein Name, um sie wieder zu verwenden</translation>
    </message>
    <message>
        <source>Decides sets down to</source>
        <translation>Entscheidet Sätze bis hinab zu</translation>
    </message>
    <message>
        <source>Which sets</source>
        <translation>Welche Sätze</translation>
    </message>
    <message>
        <source>the %1 selected sets</source>
        <translation>die %1 gewählten Sätze</translation>
    </message>
    <message>
        <source>all %1 sets in the list</source>
        <translation>alle %1 Sätze der Liste</translation>
    </message>
    <message>
        <source>Name</source>
        <translation>Name</translation>
    </message>
    <message>
        <source>The evidence, always: sound before damaged, measured before claimed,
whole, fewer lossy generations. Where it does not decide:</source>
        <translation>Immer der Befund: heil vor beschädigt, gemessen vor angegeben,
ganz, weniger verlustbehaftete Schritte. Wo er nicht entscheidet:</translation>
    </message>
    <message>
        <source>First</source>
        <translation>Zuerst</translation>
    </message>
    <message>
        <source>Then</source>
        <translation>Dann</translation>
    </message>
    <message>
        <source>Down to</source>
        <translation>Bis hinab zu</translation>
    </message>
    <message>
        <source>In</source>
        <translation>In</translation>
    </message>
    <message>
        <source>Working out what this would do …</source>
        <translation>Was das täte, wird ermittelt …</translation>
    </message>
    <message>
        <source>Of %1, %2 would be decided: %3 would go on the docket.</source>
        <translation>Von %1 würden %2 entschieden: auf den Laufzettel kämen %3.</translation>
    </message>
    <message>
        <source>That frees %1 once the trash is emptied: %2.</source>
        <translation>Das macht %1 frei, sobald der Papierkorb geleert ist: %2.</translation>
    </message>
    <message>
        <source>%1 would be left: %2.</source>
        <translation>Gelassen würden %1: %2.</translation>
    </message>
    <message>
        <source>%1 stay as you decided before.</source>
        <translation>Wie von Ihnen schon entschieden bleiben: %1.</translation>
    </message>
    <message>
        <source>Nothing changes on any volume until the docket is carried out.</source>
        <translation>Auf keinem Datenträger ändert sich etwas, bevor der Laufzettel ausgeführt wird.</translation>
    </message>
</context>
<context>
    <name>sober::app::PreferenceList</name>
    <message>
        <source>Up</source>
        <translation>Hinauf</translation>
    </message>
    <message>
        <source>Down</source>
        <translation>Hinab</translation>
    </message>
    <message>
        <source>Remove</source>
        <translation>Entfernen</translation>
    </message>
    <message>
        <source>Preferences in their order</source>
        <translation>Wünsche in ihrer Reihenfolge</translation>
    </message>
    <message>
        <source>Add a preference</source>
        <translation>Einen Wunsch hinzufügen</translation>
    </message>
    <message>
        <source>Add a preference…</source>
        <translation>Wunsch hinzufügen…</translation>
    </message>
    <message>
        <source>the copy below a folder…</source>
        <translation>die Kopie unter einem Ordner…</translation>
    </message>
    <message>
        <source>Which folder?</source>
        <translation>Welcher Ordner?</translation>
    </message>
    <message>
        <source>A folder&apos;s name, or a path below a volume: copies below it are preferred.</source>
        <translation>Der Name eines Ordners oder ein Pfad auf einem Datenträger: Kopien darunter werden vorgezogen.</translation>
    </message>
    <message>
        <source>Prefer it</source>
        <translation>Vorziehen</translation>
    </message>
</context>
<context>
    <name>sober::app::ProgressStrip</name>
    <message>
        <source>Surveying</source>
        <translation>Erfassung</translation>
    </message>
    <message>
        <source>Verifying</source>
        <translation>Prüfung</translation>
    </message>
    <message>
        <source>Looking for copies</source>
        <translation>Suche nach Kopien</translation>
    </message>
    <message>
        <source>Carrying out</source>
        <translation>Ausführung</translation>
    </message>
    <message>
        <source>Taking back</source>
        <translation>Rücknahme</translation>
    </message>
    <message>
        <source>Transferring</source>
        <translation>Übertragung</translation>
    </message>
    <message>
        <source>Proving</source>
        <translation>Nachweis</translation>
    </message>
    <message>
        <source>Salvaging</source>
        <translation>Bergung</translation>
    </message>
    <message>
        <source>Looking at the inboxes</source>
        <translation>Blick in die Eingangsordner</translation>
    </message>
    <message>
        <source>Looking for better ones</source>
        <translation>Suche nach besseren</translation>
    </message>
    <message>
        <source>Reading a disc</source>
        <translation>Lesen einer Disc</translation>
    </message>
    <message>
        <source>Looking after the catalogue</source>
        <translation>Pflege des Katalogs</translation>
    </message>
    <message>
        <source>Taking in</source>
        <translation>Aufnahme von Neuem</translation>
    </message>
    <message>
        <source>Writing an image</source>
        <translation>Schreiben eines Abbilds</translation>
    </message>
    <message>
        <source>Making an image</source>
        <translation>Machen eines Abbilds</translation>
    </message>
    <message>
        <source>Looking at what was found</source>
        <translation>Ansehen des Gefundenen</translation>
    </message>
    <message>
        <source>%1 of %2 files</source>
        <translation>%1 von %2 Dateien</translation>
    </message>
    <message>
        <source>%1 found</source>
        <translation>%1 gefunden</translation>
    </message>
    <message>
        <source>%1 of %2</source>
        <translation>%1 von %2</translation>
    </message>
    <message>
        <source>%1/s</source>
        <translation>%1/s</translation>
    </message>
    <message>
        <source>%1 left</source>
        <translation>noch %1</translation>
    </message>
    <message>
        <source>%1 could not be read</source>
        <translation>%1 nicht lesbar</translation>
    </message>
    <message>
        <source>Pause</source>
        <translation>Pause</translation>
    </message>
    <message>
        <source>Cancel</source>
        <translation>Abbrechen</translation>
    </message>
    <message>
        <source>Go on</source>
        <translation>Weiter</translation>
    </message>
    <message>
        <source>Stop after this file</source>
        <translation>Nach dieser Datei anhalten</translation>
    </message>
    <message>
        <source> (paused)</source>
        <translation> (angehalten)</translation>
    </message>
</context>
<context>
    <name>sober::app::ReferencePanel</name>
    <message>
        <source>will not last</source>
        <translation>nicht von Dauer</translation>
    </message>
    <message>
        <source>spelled otherwise</source>
        <translation>anders geschrieben</translation>
    </message>
    <message>
        <source>not the one to keep</source>
        <translation>nicht die zu behaltende</translation>
    </message>
    <message>
        <source>twice in its list</source>
        <translation>zweimal in ihrer Liste</translation>
    </message>
    <message>
        <source>References that work today</source>
        <translation>Verweise, die heute funktionieren</translation>
    </message>
    <message>
        <source>Places that do not last…</source>
        <translation>Orte ohne Dauer…</translation>
    </message>
    <message>
        <source>Repoint</source>
        <translation>Umlenken</translation>
    </message>
    <message>
        <source>Let the selected lead to the copy that is to keep, or to the file&apos;s exact name</source>
        <translation>Die gewählten zu der Kopie führen lassen, die bleiben soll, oder zum genauen Namen der Datei</translation>
    </message>
    <message>
        <source>What about it</source>
        <translation>Was damit ist</translation>
    </message>
    <message>
        <source>to repoint</source>
        <translation>umzulenken</translation>
    </message>
    <message>
        <source>Leads to</source>
        <translation>Führt zu</translation>
    </message>
    <message>
        <source>List</source>
        <translation>Liste</translation>
    </message>
    <message>
        <source>Why</source>
        <translation>Warum</translation>
    </message>
    <message>
        <source>References that work today and should be looked at</source>
        <translation>Verweise, die heute funktionieren und angesehen werden sollten</translation>
    </message>
    <message>
        <source>Nothing to look at: no reference leads to a place that does not last.</source>
        <translation>Nichts anzusehen: kein Verweis führt an einen Ort ohne Dauer.</translation>
    </message>
    <message>
        <source>Holdings in no list</source>
        <translation>Dateien in keiner Liste</translation>
    </message>
    <message>
        <source>Title</source>
        <translation>Titel</translation>
    </message>
    <message>
        <source>Volume</source>
        <translation>Datenträger</translation>
    </message>
    <message>
        <source>File</source>
        <translation>Datei</translation>
    </message>
    <message>
        <source>Holdings that no player&apos;s list points at</source>
        <translation>Dateien, auf die keine Liste eines Abspielers zeigt</translation>
    </message>
    <message>
        <source>Every holding is in some list, or no player is known yet.</source>
        <translation>Jede Datei steht in einer Liste, oder es ist noch kein Abspieler bekannt.</translation>
    </message>
    <message>
        <source>%1: a migration by lists alone would forget them</source>
        <translation>%1: ein Umzug allein nach Listen würde sie vergessen</translation>
    </message>
    <message>
        <source>Of the selected it is not known where they had better lead. Move the file (the docket takes its references along) or leave it.</source>
        <translation>Von den gewählten ist nicht bekannt, wohin sie besser führten. Verschieben Sie die Datei (der Laufzettel nimmt ihre Verweise mit) oder lassen Sie sie.</translation>
    </message>
    <message>
        <source>Places that do not last</source>
        <translation>Orte ohne Dauer</translation>
    </message>
    <message>
        <source>Shell patterns, parted by spaces, held against whole paths without regard to letter case; within a volume against what lies below its root.</source>
        <translation>Muster, durch Leerzeichen getrennt, verglichen mit ganzen Pfaden ohne Rücksicht auf Groß- und Kleinschreibung; auf einem Datenträger mit dem, was unter seiner Wurzel liegt.</translation>
    </message>
    <message>
        <source>Keep</source>
        <translation>Behalten</translation>
    </message>
</context>
<context>
    <name>sober::app::RelinkPanel</name>
    <message>
        <source>%1 %</source>
        <translation>%1 %</translation>
    </message>
    <message>
        <source>, all in one folder</source>
        <translation>, alle in einem Ordner</translation>
    </message>
    <message>
        <source>, sorted by tags</source>
        <translation>, nach Tags geordnet</translation>
    </message>
    <message>
        <source>, spelled otherwise</source>
        <translation>, anders geschrieben</translation>
    </message>
    <message>
        <source>%1, .%2 to .%3</source>
        <translation>%1, .%2 zu .%3</translation>
    </message>
    <message>
        <source>Broken references from where they lead to where their files are now</source>
        <translation>Zerbrochene Verweise, von ihrem Ziel zu dem Ort, an dem ihre Dateien jetzt sind</translation>
    </message>
    <message>
        <source>references lead to</source>
        <translation>Verweise führen zu</translation>
    </message>
    <message>
        <source>and their files are in</source>
        <translation>und ihre Dateien sind in</translation>
    </message>
    <message>
        <source>not found</source>
        <translation>nicht gefunden</translation>
    </message>
    <message>
        <source>%1 below %2</source>
        <translation>%1 unter %2</translation>
    </message>
    <message>
        <source>References of each player</source>
        <translation>Verweise jedes Abspielers</translation>
    </message>
    <message>
        <source>State</source>
        <translation>Stand</translation>
    </message>
    <message>
        <source>to repoint</source>
        <translation>umzulenken</translation>
    </message>
    <message>
        <source>to write off</source>
        <translation>abzuschreiben</translation>
    </message>
    <message>
        <source>found</source>
        <translation>gefunden</translation>
    </message>
    <message>
        <source>asked</source>
        <translation>erfragt</translation>
    </message>
    <message>
        <source>looked for</source>
        <translation>gesucht</translation>
    </message>
    <message>
        <source>References lead to</source>
        <translation>Verweise führen zu</translation>
    </message>
    <message>
        <source>The file is at</source>
        <translation>Die Datei ist bei</translation>
    </message>
    <message>
        <source>%1</source>
        <translation>%1</translation>
    </message>
    <message>
        <source>Sure</source>
        <translation>Sicher</translation>
    </message>
    <message>
        <source>Places that references lead to</source>
        <translation>Orte, zu denen Verweise führen</translation>
    </message>
    <message>
        <source>No reference is broken. Take a player&apos;s lists in (N), and what they point at is watched.</source>
        <translation>Kein Verweis ist zerbrochen. Nehmen Sie die Listen eines Abspielers auf (N), dann wird bewacht, worauf sie zeigen.</translation>
    </message>
    <message>
        <source>Take a player in…</source>
        <translation>Abspieler aufnehmen…</translation>
    </message>
    <message>
        <source>Read the lists of another player: a folder that holds them</source>
        <translation>Die Listen eines weiteren Abspielers lesen: ein Ordner, der sie enthält</translation>
    </message>
    <message>
        <source>A folder with a player&apos;s lists</source>
        <translation>Ein Ordner mit Listen eines Abspielers</translation>
    </message>
    <message>
        <source>Look in…</source>
        <translation>Suchen in…</translation>
    </message>
    <message>
        <source>Look for the lost in a folder that is not catalogued</source>
        <translation>Das Verlorene in einem Ordner suchen, der nicht erfasst ist</translation>
    </message>
    <message>
        <source>Look for the lost in a folder</source>
        <translation>Das Verlorene in einem Ordner suchen</translation>
    </message>
    <message>
        <source>It is here…</source>
        <translation>Hier ist sie…</translation>
    </message>
    <message>
        <source>Show one file; the rest of its folder tree follows by the same rule</source>
        <translation>Eine Datei zeigen; der Rest ihres Ordnerbaums folgt nach derselben Regel</translation>
    </message>
    <message>
        <source>Rule off</source>
        <translation>Regel aus</translation>
    </message>
    <message>
        <source>Do not use the chosen rule, or use it again</source>
        <translation>Die gewählte Regel nicht anwenden, oder wieder anwenden</translation>
    </message>
    <message>
        <source>Write off</source>
        <translation>Abschreiben</translation>
    </message>
    <message>
        <source>Accept that the selected are gone: they are not shown again</source>
        <translation>Hinnehmen, dass die gewählten verloren sind: sie werden nicht wieder gezeigt</translation>
    </message>
    <message>
        <source>Wait</source>
        <translation>Warten</translation>
    </message>
    <message>
        <source>Take the selected off the docket</source>
        <translation>Die gewählten vom Laufzettel nehmen</translation>
    </message>
    <message>
        <source>Repoint</source>
        <translation>Umlenken</translation>
    </message>
    <message>
        <source>Put all links that are shown on the docket, for all players at once</source>
        <translation>Alle gezeigten Verknüpfungen auf den Laufzettel setzen, für alle Abspieler zugleich</translation>
    </message>
    <message>
        <source>Looking for the lost …</source>
        <translation>Das Verlorene wird gesucht …</translation>
    </message>
    <message>
        <source>%1 sure, by %2</source>
        <translation>zu %1 sicher, durch %2</translation>
    </message>
    <message>
        <source>switched off by you</source>
        <translation>von Ihnen abgeschaltet</translation>
    </message>
    <message>
        <source>single files, smaller rules</source>
        <translation>einzelne Dateien, kleinere Regeln</translation>
    </message>
    <message>
        <source>other places, one by one</source>
        <translation>andere Orte, einer nach dem anderen</translation>
    </message>
    <message>
        <source>several candidates, or not sure</source>
        <translation>mehrere Anwärter, oder nicht sicher</translation>
    </message>
    <message>
        <source>for you to say</source>
        <translation>das müssen Sie sagen</translation>
    </message>
    <message>
        <source>nothing that would fit</source>
        <translation>nichts, das passen würde</translation>
    </message>
    <message>
        <source>being looked for</source>
        <translation>wird gesucht</translation>
    </message>
    <message>
        <source>to be seen</source>
        <translation>zeigt sich noch</translation>
    </message>
    <message>
        <source>%1   O</source>
        <translation>%1   O</translation>
    </message>
    <message>
        <source>Rule on</source>
        <translation>Regel an</translation>
    </message>
    <message>
        <source>All places: choose a ribbon to look into it</source>
        <translation>Alle Orte: wählen Sie ein Band, um hineinzusehen</translation>
    </message>
    <message>
        <source>This rule is not used</source>
        <translation>Diese Regel wird nicht angewandt</translation>
    </message>
    <message>
        <source>%1 by this rule, %2 sure</source>
        <translation>%1 nach dieser Regel, zu %2 sicher</translation>
    </message>
    <message>
        <source>Of the chosen ribbon: %1</source>
        <translation>Vom gewählten Band: %1</translation>
    </message>
    <message>
        <source>Inferred from %1</source>
        <translation>Geschlossen aus %1</translation>
    </message>
    <message>
        <source>%1: all of %2 lead to a file</source>
        <translation>%1: alle führen zu einer Datei (%2)</translation>
    </message>
    <message>
        <source>%1: %2 of %3 broken</source>
        <translation>%1: %2 von %3 zerbrochen</translation>
    </message>
    <message>
        <source>%1: %2 of %3 broken, %4 after this</source>
        <translation>%1: %2 von %3 zerbrochen, danach %4</translation>
    </message>
    <message>
        <source>No player is known yet. Take its lists in with N: a folder that holds M3U, PLS or XSPF lists or cue sheets.</source>
        <translation>Noch ist kein Abspieler bekannt. Nehmen Sie seine Listen mit N auf: ein Ordner mit M3U-, PLS- oder XSPF-Listen oder Cue-Sheets.</translation>
    </message>
    <message>
        <source>Where %1 is now</source>
        <translation>Wo %1 jetzt ist</translation>
    </message>
    <message>
        <source>%1: %2 of %3 lead to a file, %4 to drives that are away</source>
        <translation>%1: %2 von %3 führen zu einer Datei, %4 auf Laufwerke, die nicht da sind</translation>
    </message>
    <message>
        <source>No reference of any player is known to be broken.</source>
        <translation>Von keinem Verweis eines Abspielers ist bekannt, dass er ins Leere führt.</translation>
    </message>
</context>
<context>
    <name>sober::app::ReplaceWindow</name>
    <message>
        <source>%1 is fetched, examined and laid over what is held; what is no better is refused</source>
        <translation>%1 wird geholt, untersucht und über das Vorhandene gelegt; was nicht besser ist, wird abgelehnt</translation>
    </message>
    <message>
        <source>%1 is laid over what is held, if that was not done before</source>
        <translation>%1 wird über das Vorhandene gelegt, falls das noch nicht geschah</translation>
    </message>
    <message>
        <source>it is copied beside what is held, with the tags chosen, and read back</source>
        <translation>sie wird neben das Vorhandene kopiert, mit den gewählten Tags, und zurückgelesen</translation>
    </message>
    <message>
        <source>%1 goes to the trash; what led there leads to the new one</source>
        <translation>%1 kommt in den Papierkorb; was dorthin führte, führt zur neuen</translation>
    </message>
    <message>
        <source>What will be done</source>
        <translation>Was getan wird</translation>
    </message>
    <message>
        <source>Put on the docket</source>
        <translation>Auf den Laufzettel</translation>
    </message>
    <message>
        <source>Replace by a better one</source>
        <translation>Durch eine bessere ersetzen</translation>
    </message>
    <message>
        <source>%1. %2.</source>
        <translation>%1. %2.</translation>
    </message>
    <message>
        <source>Take the new file&apos;s tags where both say something</source>
        <translation>Die Tags der neuen Datei nehmen, wo beide etwas sagen</translation>
    </message>
    <message>
        <source>Else what the old file says is written into the new one</source>
        <translation>Sonst wird in die neue geschrieben, was die alte Datei sagt</translation>
    </message>
    <message>
        <source>Reading the tags of both …</source>
        <translation>Die Tags beider werden gelesen …</translation>
    </message>
    <message>
        <source>Nothing changes before the docket is carried out.</source>
        <translation>Nichts ändert sich, bevor der Laufzettel ausgeführt wird.</translation>
    </message>
    <message>
        <source>The new file&apos;s tags say all that the old one&apos;s say.</source>
        <translation>Die Tags der neuen Datei sagen alles, was die der alten sagen.</translation>
    </message>
    <message>
        <source>Tags of the new file. What the old one says is kept, unless you choose.</source>
        <translation>Tags der neuen Datei. Was die alte sagt, bleibt, wenn Sie nicht anders wählen.</translation>
    </message>
    <message>
        <source>the old file</source>
        <translation>die alte Datei</translation>
    </message>
</context>
<context>
    <name>sober::app::ReplacementDesk</name>
    <message>
        <source>Could be better</source>
        <translation>Was besser ginge</translation>
    </message>
    <message>
        <source>What could be better, and where is it to be had?</source>
        <translation>Was könnte besser sein, und woher ist es zu haben?</translation>
    </message>
    <message>
        <source>How far the bandwidth reaches: the best that is to be had (filled) beside what is held (ring)</source>
        <translation>Wie weit die Bandbreite reicht: das Beste, was zu haben ist (gefüllt), neben dem Vorhandenen (Ring)</translation>
    </message>
    <message>
        <source>%1 on the docket.</source>
        <translation>%1 auf dem Laufzettel.</translation>
    </message>
    <message>
        <source> Not fit after all: %1. %2</source>
        <translation> Passt doch nicht: %1. %2</translation>
    </message>
    <message>
        <source>Ask the shelf</source>
        <translation>Das Regal fragen</translation>
    </message>
    <message>
        <source>Look among all holdings and ask the offer shelf that was set up</source>
        <translation>Unter allen Dateien suchen und das eingerichtete Angebotsregal fragen</translation>
    </message>
    <message>
        <source>Offer shelf…</source>
        <translation>Angebotsregal…</translation>
    </message>
    <message>
        <source>A service that may be asked for better files</source>
        <translation>Ein Dienst, der nach besseren Dateien gefragt werden darf</translation>
    </message>
    <message>
        <source>Arrivals</source>
        <translation>Neuzugänge</translation>
    </message>
    <message>
        <source>Back to what lies in the inboxes</source>
        <translation>Zurück zu dem, was in den Eingangsordnern liegt</translation>
    </message>
    <message>
        <source>Replace…</source>
        <translation>Ersetzen…</translation>
    </message>
    <message>
        <source>The selected by the chosen candidate, or by the best</source>
        <translation>Die gewählten durch den gewählten Anwärter, oder durch den besten</translation>
    </message>
    <message>
        <source>Replace all that can be…</source>
        <translation>Alles Mögliche ersetzen…</translation>
    </message>
    <message>
        <source>Each by its best candidate at hand or on offer</source>
        <translation>Jede durch ihren besten Anwärter zur Hand oder im Angebot</translation>
    </message>
    <message>
        <source>Keep as it is</source>
        <translation>Behalten, wie es ist</translation>
    </message>
    <message>
        <source>Put on the docket that it is accepted, and not asked about again</source>
        <translation>Auf den Laufzettel setzen, dass es angenommen ist und nicht wieder gefragt wird</translation>
    </message>
    <message>
        <source>words in names, paths, tags, lists</source>
        <translation>Wörter in Namen, Pfaden, Tags, Listen</translation>
    </message>
    <message>
        <source>Narrow the list</source>
        <translation>Die Liste eingrenzen</translation>
    </message>
    <message>
        <source>What could be better</source>
        <translation>Was besser sein könnte</translation>
    </message>
    <message>
        <source>Nothing that is held is cut, damaged, transcoded or under the limit, as far as it was examined.</source>
        <translation>Nichts Vorhandenes ist abgeschnitten, beschädigt, umkodiert oder unter der Grenze, soweit es untersucht wurde.</translation>
    </message>
    <message>
        <source>The chosen holding</source>
        <translation>Die gewählte Datei</translation>
    </message>
    <message>
        <source>Why it could be better</source>
        <translation>Warum sie besser sein könnte</translation>
    </message>
    <message>
        <source>Reasons for and against the chosen candidate</source>
        <translation>Gründe für und gegen den gewählten Anwärter</translation>
    </message>
    <message>
        <source>Candidates</source>
        <translation>Anwärter</translation>
    </message>
    <message>
        <source>Nothing else of this title is known.</source>
        <translation>Sonst ist nichts mit diesem Titel bekannt.</translation>
    </message>
    <message>
        <source>better one %1</source>
        <translation>bessere: %1</translation>
    </message>
    <message>
        <source>none known</source>
        <translation>keine bekannt</translation>
    </message>
    <message>
        <source>nothing better is known</source>
        <translation>nichts Besseres ist bekannt</translation>
    </message>
    <message>
        <source>known once it was fetched</source>
        <translation>bekannt, wenn sie geholt ist</translation>
    </message>
    <message>
        <source>On the docket: %1, by %2.</source>
        <translation>Auf dem Laufzettel: %1, durch %2.</translation>
    </message>
    <message>
        <source>%1 does not fit: %2.</source>
        <translation>%1 passt nicht: %2.</translation>
    </message>
    <message>
        <source>Choose a holding to see what could take its place.</source>
        <translation>Wählen Sie eine Datei, um zu sehen, was an ihre Stelle treten könnte.</translation>
    </message>
    <message>
        <source>%1: %2. In %3.</source>
        <translation>%1: %2. In %3.</translation>
    </message>
    <message>
        <source>The best: %1.</source>
        <translation>Die beste: %1.</translation>
    </message>
    <message>
        <source>it is not at hand</source>
        <translation>sie ist nicht zur Hand</translation>
    </message>
    <message>
        <source>nothing is chosen</source>
        <translation>nichts ist gewählt</translation>
    </message>
    <message>
        <source>Does not fit (%1): %2.</source>
        <translation>Passt nicht (%1): %2.</translation>
    </message>
    <message>
        <source>Fits: %1.</source>
        <translation>Passt: %1.</translation>
    </message>
    <message>
        <source>Other work is going on; ask again once it has ended.</source>
        <translation>Andere Arbeit läuft; fragen Sie wieder, wenn sie zu Ende ist.</translation>
    </message>
    <message>
        <source>Offer shelf</source>
        <translation>Angebotsregal</translation>
    </message>
    <message>
        <source>The address of a service that may be asked for better files; empty for none. Of what could be better its title, artist and length are sent there, and nothing else; no other service is ever asked.</source>
        <translation>Die Adresse eines Dienstes, der nach besseren Dateien gefragt werden darf; leer heißt keiner. Von dem, was besser sein könnte, werden Titel, Künstler und Länge dorthin gesendet, sonst nichts; kein anderer Dienst wird je gefragt.</translation>
    </message>
    <message>
        <source>Set up</source>
        <translation>Einrichten</translation>
    </message>
    <message>
        <source>Nothing is known that could replace it.</source>
        <translation>Nichts ist bekannt, das sie ersetzen könnte.</translation>
    </message>
    <message>
        <source>It does not fit: %1.</source>
        <translation>Sie passt nicht: %1.</translation>
    </message>
    <message>
        <source>For nothing in the list a better one is at hand or on offer.</source>
        <translation>Für nichts in der Liste ist eine bessere zur Hand oder im Angebot.</translation>
    </message>
    <message>
        <source>%1
    by %2: %3</source>
        <translation>%1
    durch %2: %3</translation>
    </message>
    <message>
        <source>Replace all that can be</source>
        <translation>Ersetzen, was sich ersetzen lässt</translation>
    </message>
    <message>
        <source>%1 would go on the docket, each by its best candidate, with the tags that the old one has. What does not fit when it is laid over is left. Nothing changes before the docket is carried out.</source>
        <translation>Auf den Laufzettel kämen: %1, jede durch ihren besten Anwärter, mit den Tags der alten. Was beim Darüberlegen nicht passt, bleibt. Nichts ändert sich, bevor der Laufzettel ausgeführt wird.</translation>
    </message>
    <message>
        <source>Put on the docket</source>
        <translation>Auf den Laufzettel</translation>
    </message>
</context>
<context>
    <name>sober::app::ReportWindow</name>
    <message>
        <source>Leave &amp;paths and names out</source>
        <translation>&amp;Pfade und Namen weglassen</translation>
    </message>
    <message>
        <source>Write it…</source>
        <translation>Schreiben…</translation>
    </message>
    <message>
        <source>Make a report</source>
        <translation>Einen Bericht machen</translation>
    </message>
    <message>
        <source>What a report is</source>
        <translation>Was ein Bericht ist</translation>
    </message>
    <message>
        <source>What is known of the collection, for yourself, your family or an archive. It is taken from the catalogue: what is away counts as it was last seen.</source>
        <translation>Was von der Sammlung bekannt ist, für Sie, Ihre Familie oder ein Archiv. Er kommt aus dem Katalog: was nicht da ist, zählt, wie es zuletzt gesehen wurde.</translation>
    </message>
    <message>
        <source>&amp;Condition of each volume</source>
        <translation>&amp;Zustand jedes Datenträgers</translation>
    </message>
    <message>
        <source>C&amp;opies, and what is advised</source>
        <translation>&amp;Kopien und was geraten wird</translation>
    </message>
    <message>
        <source>C&amp;laims that the evidence contradicts</source>
        <translation>&amp;Angaben, denen der Befund widerspricht</translation>
    </message>
    <message>
        <source>&amp;Damage, second by second</source>
        <translation>&amp;Schäden, Sekunde für Sekunde</translation>
    </message>
    <message>
        <source>&amp;Fixity: checks, and what drifted</source>
        <translation>&amp;Unversehrtheit: Prüfungen und was abwich</translation>
    </message>
    <message>
        <source>What is &amp;missing</source>
        <translation>Was &amp;fehlt</translation>
    </message>
    <message>
        <source>P&amp;roven transfers</source>
        <translation>&amp;Nachgewiesene Übertragungen</translation>
    </message>
    <message>
        <source>What leaving out does</source>
        <translation>Was Weglassen tut</translation>
    </message>
    <message>
        <source>A holding is then called by a number and by its volume&apos;s label, so that the report can be shown to somebody who is not to know what you have.</source>
        <translation>Eine Datei heißt dann nach einer Nummer und dem Namen ihres Datenträgers; so lässt sich der Bericht jemandem zeigen, der nicht wissen soll, was Sie haben.</translation>
    </message>
    <message>
        <source>A page to read and to print (HTML)</source>
        <translation>Eine Seite zum Lesen und Drucken (HTML)</translation>
    </message>
    <message>
        <source>A table, a line for each finding (CSV)</source>
        <translation>Eine Tabelle, eine Zeile je Feststellung (CSV)</translation>
    </message>
    <message>
        <source>For other programs (JSON)</source>
        <translation>Für andere Programme (JSON)</translation>
    </message>
    <message>
        <source>Form</source>
        <translation>Form</translation>
    </message>
    <message>
        <source>Collection on %1</source>
        <translation>Sammlung am %1</translation>
    </message>
</context>
<context>
    <name>sober::app::RibbonChart</name>
    <message>
        <source>and %1 in further folders</source>
        <translation>und %1 in weiteren Ordnern</translation>
    </message>
</context>
<context>
    <name>sober::app::SalvageDesk</name>
    <message>
        <source>Salvage</source>
        <translation>Bergung</translation>
    </message>
    <message>
        <source>What can I get back?</source>
        <translation>Was kann ich zurückbekommen?</translation>
    </message>
    <message>
        <source>Everywhere</source>
        <translation>Überall</translation>
    </message>
    <message>
        <source>Fragments together</source>
        <translation>Bruchstücke zusammen</translation>
    </message>
    <message>
        <source>%1 were written, read back and compared.</source>
        <translation>%1 wurden geschrieben, zurückgelesen und verglichen.</translation>
    </message>
    <message>
        <source>%1 were written, read back and compared; %2 of them are zeros for what is not in the image.</source>
        <translation>%1 wurden geschrieben, zurückgelesen und verglichen; %2 davon sind Nullen für das, was nicht im Abbild ist.</translation>
    </message>
    <message>
        <source>All of it is in %1. Look again (L) looks through it.</source>
        <translation>Alles davon ist in %1. Neu ansehen (L) sieht es durch.</translation>
    </message>
    <message>
        <source>%1 in %2 are not in %3 yet; name the same image again to try them again. Look again (L) looks through what is there.</source>
        <translation>%1 an %2 sind noch nicht in %3; nennen Sie dasselbe Abbild wieder, um sie noch einmal zu versuchen. Neu ansehen (L) sieht durch, was da ist.</translation>
    </message>
    <message>
        <source>What is looked through</source>
        <translation>Was durchgesehen wird</translation>
    </message>
    <message>
        <source>Image or drive…</source>
        <translation>Abbild oder Laufwerk…</translation>
    </message>
    <message>
        <source>Look through an image of a card, or a drive; nothing is changed there. Of a drive that fails make an image first: every reading may be its last.</source>
        <translation>Ein Abbild einer Karte oder ein Laufwerk durchsehen; dort ändert sich nichts. Von einem versagenden Laufwerk machen Sie zuerst ein Abbild: jedes Lesen kann das letzte sein.</translation>
    </message>
    <message>
        <source>Forget</source>
        <translation>Vergessen</translation>
    </message>
    <message>
        <source>Forget what was found in this image; the image itself stays as it is</source>
        <translation>Vergessen, was in diesem Abbild gefunden wurde; das Abbild selbst bleibt, wie es ist</translation>
    </message>
    <message>
        <source>Formats that are looked for</source>
        <translation>Gesuchte Formate</translation>
    </message>
    <message>
        <source>Scan for all</source>
        <translation>Nach allem suchen</translation>
    </message>
    <message>
        <source>Scan for %1</source>
        <translation>Nach %1 suchen</translation>
    </message>
    <message>
        <source>What the next scan looks for: one format alone is found faster</source>
        <translation>Wonach der nächste Durchgang sucht: ein Format allein ist schneller gefunden</translation>
    </message>
    <message>
        <source>Also where the file system of an image gives out files that can simply be read</source>
        <translation>Auch dort, wo das Dateisystem eines Abbilds Dateien hergibt, die einfach lesbar sind</translation>
    </message>
    <message>
        <source>Make an image…</source>
        <translation>Abbild machen…</translation>
    </message>
    <message>
        <source>Read a drive that fails, or any, into an image: what is sound first. Stopped, it goes on there when the same image is named again; what could not be read is tried again.</source>
        <translation>Ein versagendes Laufwerk, oder jedes, in ein Abbild lesen: Heiles zuerst. Angehalten, geht es dort weiter, wenn dasselbe Abbild wieder genannt wird; was nicht lesbar war, wird noch einmal versucht.</translation>
    </message>
    <message>
        <source>Look again</source>
        <translation>Neu ansehen</translation>
    </message>
    <message>
        <source>Look at the trash again, or go on with the image; what was changed is looked through anew</source>
        <translation>Den Papierkorb neu ansehen oder mit dem Abbild fortfahren; was geändert wurde, wird neu durchgesehen</translation>
    </message>
    <message>
        <source>Write one back…</source>
        <translation>Zurückschreiben…</translation>
    </message>
    <message>
        <source>Write this image over a drive that nobody uses, and compare it afterwards</source>
        <translation>Dieses Abbild über ein Laufwerk schreiben, das niemand benutzt, und danach vergleichen</translation>
    </message>
    <message>
        <source>Bytes</source>
        <translation>Bytes</translation>
    </message>
    <message>
        <source>The bytes of the image where the selected find begins, and what they are</source>
        <translation>Die Bytes des Abbilds, wo das gewählte Fundstück beginnt, und was sie sind</translation>
    </message>
    <message>
        <source>Show by what it is to the collection</source>
        <translation>Danach zeigen, was es für die Sammlung ist</translation>
    </message>
    <message>
        <source>All finds</source>
        <translation>Alle Fundstücke</translation>
    </message>
    <message>
        <source>New</source>
        <translation>Neu</translation>
    </message>
    <message>
        <source>Missing here</source>
        <translation>Fehlt hier</translation>
    </message>
    <message>
        <source>Held</source>
        <translation>Da</translation>
    </message>
    <message>
        <source>Retired</source>
        <translation>Ausgesondert</translation>
    </message>
    <message>
        <source>Show by how whole it is</source>
        <translation>Danach zeigen, wie ganz es ist</translation>
    </message>
    <message>
        <source>Whole or not</source>
        <translation>Ganz oder nicht</translation>
    </message>
    <message>
        <source>Whole</source>
        <translation>Ganz</translation>
    </message>
    <message>
        <source>Not whole</source>
        <translation>Nicht ganz</translation>
    </message>
    <message>
        <source>Show by format</source>
        <translation>Nach Format zeigen</translation>
    </message>
    <message>
        <source>Any format</source>
        <translation>Jedes Format</translation>
    </message>
    <message>
        <source>What is new and sounds or is called the same is one line: the best of it</source>
        <translation>Was neu ist und gleich klingt oder heißt, steht in einer Zeile: das Beste davon</translation>
    </message>
    <message>
        <source>Put back</source>
        <translation>Zurücklegen</translation>
    </message>
    <message>
        <source>To the place of the missing holding that it is or, out of the trash, where it was</source>
        <translation>An den Ort der fehlenden Datei, die es ist, oder, aus dem Papierkorb, wo es war</translation>
    </message>
    <message>
        <source>Take into…</source>
        <translation>Nehmen nach…</translation>
    </message>
    <message>
        <source>Into a folder, named by what is known of it; what is not whole is kept apart there</source>
        <translation>In einen Ordner, benannt nach dem, was davon bekannt ist; was nicht ganz ist, wird dort getrennt gehalten</translation>
    </message>
    <message>
        <source>Tidy up</source>
        <translation>Aufräumen</translation>
    </message>
    <message>
        <source>Put on the docket what was salvaged into a folder or lies in the trash, and is held elsewhere</source>
        <translation>Auf den Laufzettel setzen, was in einen Ordner geborgen wurde oder im Papierkorb liegt und anderswo vorhanden ist</translation>
    </message>
    <message>
        <source>Leave</source>
        <translation>Lassen</translation>
    </message>
    <message>
        <source>Take the selected off the docket</source>
        <translation>Die gewählten vom Laufzettel nehmen</translation>
    </message>
    <message>
        <source>Finds</source>
        <translation>Fundstücke</translation>
    </message>
    <message>
        <source>Nothing was found here yet. Look again (L) looks at the trash of every drive at hand; Image or drive… (O) looks through the image of a card that was wiped.</source>
        <translation>Hier wurde noch nichts gefunden. Neu ansehen (L) sieht den Papierkorb jedes Laufwerks zur Hand an; Abbild oder Laufwerk… (O) sieht das Abbild einer gelöschten Karte durch.</translation>
    </message>
    <message>
        <source>The trash</source>
        <translation>Der Papierkorb</translation>
    </message>
    <message>
        <source>An image of a card, or a drive</source>
        <translation>Ein Abbild einer Karte, oder ein Laufwerk</translation>
    </message>
    <message>
        <source>The drive that an image is made of</source>
        <translation>Das Laufwerk, von dem ein Abbild gemacht wird</translation>
    </message>
    <message>
        <source>The image, on another drive</source>
        <translation>Das Abbild, auf einem anderen Laufwerk</translation>
    </message>
    <message>
        <source>Choose the image first that is to be written.</source>
        <translation>Wählen Sie zuerst das Abbild, das geschrieben werden soll.</translation>
    </message>
    <message>
        <source>The drive that the image is written over</source>
        <translation>Das Laufwerk, über welches das Abbild geschrieben wird</translation>
    </message>
    <message>
        <source>What lies in the trash is a file: its bytes are where it lies.</source>
        <translation>Was im Papierkorb liegt, ist eine Datei: ihre Bytes sind, wo sie liegt.</translation>
    </message>
    <message>
        <source>Something else is going on; wait for it, or stop it.</source>
        <translation>Etwas anderes läuft; warten Sie darauf oder halten Sie es an.</translation>
    </message>
    <message>
        <source>It is looked through as it is. Of a drive that fails every reading may be the last: make an image first (M).</source>
        <translation>Es wird durchgesehen, wie es ist. Bei einem versagenden Laufwerk kann jedes Lesen das letzte sein: machen Sie zuerst ein Abbild (M).</translation>
    </message>
    <message>
        <source>It is in use (%1): what was deleted there may be written over any moment. Make an image first (M).</source>
        <translation>Es ist in Gebrauch (%1): was dort gelöscht wurde, kann jeden Augenblick überschrieben werden. Machen Sie zuerst ein Abbild (M).</translation>
    </message>
    <message>
        <source>Take the selected into a folder</source>
        <translation>Die gewählten in einen Ordner nehmen</translation>
    </message>
    <message>
        <source>In which folders, under which names</source>
        <translation>In welche Ordner, unter welchen Namen</translation>
    </message>
    <message>
        <source>Fields and quoted text, “/” between folders; “|” says what stands in for a field that is empty. What has no tags is named by where it was found.</source>
        <translation>Felder und Text in Anführungszeichen, „/“ zwischen Ordnern; „|“ sagt, was für ein leeres Feld einspringt. Was keine Tags hat, wird danach benannt, wo es gefunden wurde.</translation>
    </message>
    <message>
        <source>Put on the docket</source>
        <translation>Auf den Laufzettel</translation>
    </message>
    <message>
        <source>Names that are taken</source>
        <translation>Vergebene Namen</translation>
    </message>
    <message>
        <source>The names of %1 are taken there. What stands there stays in any case.</source>
        <translation>Dort sind die Namen von %1 vergeben. Was dort steht, bleibt auf jeden Fall.</translation>
    </message>
    <message>
        <source>Take them under other names</source>
        <translation>Unter anderen Namen nehmen</translation>
    </message>
    <message>
        <source>Leave them</source>
        <translation>Lassen</translation>
    </message>
    <message>
        <source>Nothing was put on the docket.</source>
        <translation>Nichts kam auf den Laufzettel.</translation>
    </message>
    <message>
        <source>%1 of %2 were left.</source>
        <translation>Von %2 blieben %1.</translation>
    </message>
    <message>
        <source>Nothing that was salvaged is held elsewhere, and nothing in the trash is.</source>
        <translation>Nichts Geborgenes ist anderswo vorhanden, und nichts im Papierkorb.</translation>
    </message>
    <message>
        <source>%1 put on the docket: they are held elsewhere.</source>
        <translation>%1 auf den Laufzettel gesetzt: sie sind anderswo vorhanden.</translation>
    </message>
</context>
<context>
    <name>sober::app::SalvageStrip</name>
    <message>
        <source>What was found, at its place in the image or the trash</source>
        <translation>Was gefunden wurde, an seiner Stelle im Abbild oder im Papierkorb</translation>
    </message>
    <message>
        <source>new</source>
        <translation>neu</translation>
    </message>
    <message>
        <source>held</source>
        <translation>vorhanden</translation>
    </message>
    <message>
        <source>missing here</source>
        <translation>fehlt hier</translation>
    </message>
    <message>
        <source>not whole</source>
        <translation>nicht ganz</translation>
    </message>
    <message>
        <source>not read</source>
        <translation>nicht gelesen</translation>
    </message>
    <message>
        <source>not read: %1</source>
        <translation>nicht gelesen: %1</translation>
    </message>
    <message>
        <source>nobody knows when</source>
        <translation>niemand weiß wann</translation>
    </message>
    <message>
        <source>What was thrown away, the newest first</source>
        <translation>Was weggeworfen wurde, das Neueste zuerst</translation>
    </message>
    <message>
        <source>no file system that is known</source>
        <translation>kein bekanntes Dateisystem</translation>
    </message>
    <message>
        <source>, looked through as far as %1</source>
        <translation>, durchgesehen bis %1</translation>
    </message>
    <message>
        <source>Image of %1: %2 of %3 are read, %4 could not be read so far</source>
        <translation>Abbild von %1: %2 von %3 sind gelesen, %4 bisher nicht lesbar</translation>
    </message>
    <message>
        <source>, %1 passed over: what looks for audio broke there</source>
        <translation>, %1 übergangen: was nach Ton sucht, brach dort ab</translation>
    </message>
    <message>
        <source>%1: %2, %3%4%5</source>
        <translation>%1: %2, %3%4%5</translation>
    </message>
</context>
<context>
    <name>sober::app::ScheduleWindow</name>
    <message>
        <source>Check on a schedule</source>
        <translation>Regelmäßig prüfen</translation>
    </message>
    <message>
        <source>systemd reads again what is due while you are logged in, without these windows, and the desktop tells you when something is found that was not known. These two files are written for it, and nothing else.</source>
        <translation>systemd liest neu, was fällig ist, während Sie angemeldet sind, ohne diese Fenster, und der Desktop sagt es Ihnen, wenn etwas gefunden wird, das nicht bekannt war. Dafür werden diese zwei Dateien geschrieben, sonst nichts.</translation>
    </message>
    <message>
        <source>every day</source>
        <translation>jeden Tag</translation>
    </message>
    <message>
        <source>every week</source>
        <translation>jede Woche</translation>
    </message>
    <message>
        <source>every month</source>
        <translation>jeden Monat</translation>
    </message>
    <message>
        <source>How often</source>
        <translation>Wie oft</translation>
    </message>
    <message>
        <source>Whether a check is scheduled</source>
        <translation>Ob eine Prüfung vorgesehen ist</translation>
    </message>
    <message>
        <source>The files</source>
        <translation>Die Dateien</translation>
    </message>
    <message>
        <source>Close</source>
        <translation>Schließen</translation>
    </message>
    <message>
        <source>A check is scheduled.</source>
        <translation>Eine Prüfung ist vorgesehen.</translation>
    </message>
    <message>
        <source>No check is scheduled.</source>
        <translation>Keine Prüfung ist vorgesehen.</translation>
    </message>
    <message>
        <source>Remove it</source>
        <translation>Entfernen</translation>
    </message>
    <message>
        <source>Install it</source>
        <translation>Einrichten</translation>
    </message>
    <message>
        <source># To remove it by hand:
%1</source>
        <translation># Um es von Hand zu entfernen:
%1</translation>
    </message>
    <message>
        <source>Asking systemd…</source>
        <translation>systemd wird gefragt…</translation>
    </message>
</context>
<context>
    <name>sober::app::SetChart</name>
    <message>
        <source>The members of the copy set by volume and time</source>
        <translation>Die Mitglieder des Kopiensatzes nach Datenträger und Zeit</translation>
    </message>
    <message>
        <source>Choose a set below to see where its copies lie.</source>
        <translation>Wählen Sie unten einen Satz, um zu sehen, wo seine Kopien liegen.</translation>
    </message>
    <message>
        <source> (away)</source>
        <translation> (nicht da)</translation>
    </message>
    <message>
        <source> · hard link</source>
        <translation> · harte Verknüpfung</translation>
    </message>
    <message>
        <source>written %1</source>
        <translation>geschrieben %1</translation>
    </message>
</context>
<context>
    <name>sober::app::SetPictures</name>
    <message>
        <source>This is the keeper; choose another member.</source>
        <translation>Das ist die bleibende; wählen Sie ein anderes Mitglied.</translation>
    </message>
    <message>
        <source>The same samples: nothing is left.</source>
        <translation>Dieselben Abtastwerte: nichts bleibt.</translation>
    </message>
    <message>
        <source>One of both is away.</source>
        <translation>Eine von beiden ist nicht da.</translation>
    </message>
    <message>
        <source>Comparing…</source>
        <translation>Wird verglichen…</translation>
    </message>
</context>
<context>
    <name>sober::app::Shelf</name>
    <message>
        <source>No volume yet. Drop a folder or a drive here.</source>
        <translation>Noch kein Datenträger. Ziehen Sie einen Ordner oder ein Laufwerk hierher.</translation>
    </message>
    <message>
        <source>Survey %1 again</source>
        <translation>%1 neu erfassen</translation>
    </message>
    <message>
        <source>What a survey takes in…</source>
        <translation>Was eine Erfassung umfasst…</translation>
    </message>
    <message>
        <source>Give it another label…</source>
        <translation>Anders benennen…</translation>
    </message>
    <message>
        <source>A copy has taken its place…</source>
        <translation>Eine Kopie ist an seine Stelle getreten…</translation>
    </message>
    <message>
        <source>Forget it…</source>
        <translation>Vergessen…</translation>
    </message>
    <message>
        <source>Open in the file manager</source>
        <translation>Im Dateiverwalter öffnen</translation>
    </message>
    <message>
        <source>Copy path</source>
        <translation>Pfad kopieren</translation>
    </message>
</context>
<context>
    <name>sober::app::SoundnessList</name>
    <message>
        <source>Holdings that were never sound</source>
        <translation>Dateien, die nie heil waren</translation>
    </message>
    <message>
        <source>Nothing unsound is known. Only what was examined at full effort can be told.</source>
        <translation>Nichts Beschädigtes ist bekannt. Nur von dem, was mit vollem Aufwand untersucht wurde, lässt es sich sagen.</translation>
    </message>
    <message>
        <source>What is wrong</source>
        <translation>Was nicht stimmt</translation>
    </message>
    <message>
        <source>Volume</source>
        <translation>Datenträger</translation>
    </message>
    <message>
        <source> (away)</source>
        <translation> (nicht da)</translation>
    </message>
    <message>
        <source>File</source>
        <translation>Datei</translation>
    </message>
    <message>
        <source>At</source>
        <translation>Bei</translation>
    </message>
    <message>
        <source>In all</source>
        <translation>Insgesamt</translation>
    </message>
    <message>
        <source>On the docket</source>
        <translation>Auf dem Laufzettel</translation>
    </message>
    <message>
        <source>and %1 more</source>
        <translation>und %1 weitere</translation>
    </message>
    <message>
        <source>%1 at %2: %3</source>
        <translation>%1 bei %2: %3</translation>
    </message>
    <message>
        <source>ends too early</source>
        <translation>endet zu früh</translation>
    </message>
    <message>
        <source>damaged</source>
        <translation>beschädigt</translation>
    </message>
    <message>
        <source>longer than it says</source>
        <translation>länger, als sie sagt</translation>
    </message>
    <message>
        <source>not the samples it states</source>
        <translation>nicht die angegebenen Abtastwerte</translation>
    </message>
    <message>
        <source>junk beside the audio</source>
        <translation>Fremdes neben dem Ton</translation>
    </message>
    <message>
        <source>states no length</source>
        <translation>gibt keine Länge an</translation>
    </message>
    <message>
        <source>ends within a sample</source>
        <translation>endet in einem Abtastwert</translation>
    </message>
    <message>
        <source>wrong about its ends</source>
        <translation>irrt über ihre Enden</translation>
    </message>
    <message>
        <source>silent</source>
        <translation>stumm</translation>
    </message>
    <message>
        <source>clipped</source>
        <translation>übersteuert</translation>
    </message>
    <message>
        <source>drops out</source>
        <translation>setzt aus</translation>
    </message>
    <message>
        <source>stands still</source>
        <translation>steht still</translation>
    </message>
    <message>
        <source>changes its form</source>
        <translation>wechselt ihre Form</translation>
    </message>
    <message>
        <source>bits changed, perhaps</source>
        <translation>Bits verändert, vielleicht</translation>
    </message>
</context>
<context>
    <name>sober::app::SpectrumChart</name>
    <message>
        <source>Level by frequency</source>
        <translation>Pegel nach Frequenz</translation>
    </message>
    <message>
        <source>MP3 usually ends, by kbit/s:</source>
        <translation>MP3 endet meist, nach kbit/s:</translation>
    </message>
    <message>
        <source>Too short to measure.</source>
        <translation>Zu kurz zum Messen.</translation>
    </message>
    <message>
        <source>%1 kHz: mean %2 dB, in 5 % of the time above %3 dB</source>
        <translation>%1 kHz: im Mittel %2 dB, in 5 % der Zeit über %3 dB</translation>
    </message>
    <message>
        <source>stops dead at %1 kHz</source>
        <translation>endet jäh bei %1 kHz</translation>
    </message>
    <message>
        <source>reaches %1 kHz</source>
        <translation>reicht bis %1 kHz</translation>
    </message>
</context>
<context>
    <name>sober::app::StandingListBox</name>
    <message>
        <source>Narrow to a standing list</source>
        <translation>Auf eine ständige Liste eingrenzen</translation>
    </message>
    <message>
        <source>A standing list is kept at the Claims desk and is always current</source>
        <translation>Eine ständige Liste wird am Pult Angaben geführt und ist immer aktuell</translation>
    </message>
    <message>
        <source>no standing list</source>
        <translation>keine ständige Liste</translation>
    </message>
</context>
<context>
    <name>sober::app::StepsRow</name>
    <message>
        <source>not begun</source>
        <translation>nicht begonnen</translation>
    </message>
</context>
<context>
    <name>sober::app::TagTableModel</name>
    <message>
        <source>Title</source>
        <translation>Titel</translation>
    </message>
    <message>
        <source>Artist</source>
        <translation>Künstler</translation>
    </message>
    <message>
        <source>Album</source>
        <translation>Album</translation>
    </message>
    <message>
        <source>Album artist</source>
        <translation>Albumkünstler</translation>
    </message>
    <message>
        <source>Track</source>
        <translation>Titel</translation>
    </message>
    <message>
        <source>Disc</source>
        <translation>Disc</translation>
    </message>
    <message>
        <source>Date</source>
        <translation>Datum</translation>
    </message>
    <message>
        <source>Genre</source>
        <translation>Genre</translation>
    </message>
    <message>
        <source>Composer</source>
        <translation>Komponist</translation>
    </message>
    <message>
        <source>Comment</source>
        <translation>Kommentar</translation>
    </message>
    <message>
        <source>File</source>
        <translation>Datei</translation>
    </message>
    <message>
        <source>Proposed: %1. %2</source>
        <translation>Vorgeschlagen: %1. %2</translation>
    </message>
    <message>
        <source>nothing</source>
        <translation>nichts</translation>
    </message>
    <message>
        <source>Was: %1</source>
        <translation>War: %1</translation>
    </message>
</context>
<context>
    <name>sober::app::TagTableWindow</name>
    <message>
        <source>Evidence for the cell</source>
        <translation>Befund für die Zelle</translation>
    </message>
    <message>
        <source>Reading the tags …</source>
        <translation>Die Tags werden gelesen …</translation>
    </message>
    <message>
        <source>Put on the docket</source>
        <translation>Auf den Laufzettel</translation>
    </message>
    <message>
        <source>Tags</source>
        <translation>Tags</translation>
    </message>
    <message>
        <source>Tags, a row for each file</source>
        <translation>Tags, eine Zeile je Datei</translation>
    </message>
    <message>
        <source>What would be written</source>
        <translation>Was geschrieben würde</translation>
    </message>
    <message>
        <source>Fill down</source>
        <translation>Ausfüllen</translation>
    </message>
    <message>
        <source>The topmost of the selected cells into those below</source>
        <translation>Die oberste der gewählten Zellen in die darunter</translation>
    </message>
    <message>
        <source>Count down</source>
        <translation>Hochzählen</translation>
    </message>
    <message>
        <source>Numbers from the topmost of the selected cells on</source>
        <translation>Nummern, von der obersten der gewählten Zellen an</translation>
    </message>
    <message>
        <source>Take proposals</source>
        <translation>Vorschläge nehmen</translation>
    </message>
    <message>
        <source>All that is proposed for the selected rows</source>
        <translation>Alles, was für die gewählten Zeilen vorgeschlagen ist</translation>
    </message>
    <message>
        <source>Take back</source>
        <translation>Zurücknehmen</translation>
    </message>
    <message>
        <source>The last step</source>
        <translation>Den letzten Schritt</translation>
    </message>
    <message>
        <source>Again</source>
        <translation>Wieder</translation>
    </message>
    <message>
        <source>What was taken back</source>
        <translation>Was zurückgenommen wurde</translation>
    </message>
    <message>
        <source>What is typed goes into all selected cells of its column; “; ” parts values</source>
        <translation>Was getippt wird, kommt in alle gewählten Zellen der Spalte; „; “ trennt Werte</translation>
    </message>
    <message>
        <source>Nothing is edited yet.</source>
        <translation>Noch ist nichts bearbeitet.</translation>
    </message>
    <message>
        <source>%1 would be called otherwise.</source>
        <translation>Anders heißen würde: %1.</translation>
    </message>
    <message>
        <source>%1 would be written anew, the audio data untouched. Nothing changes before the docket is carried out.</source>
        <translation>Neu geschrieben würde: %1, die Audiodaten unberührt. Nichts ändert sich, bevor der Laufzettel ausgeführt wird.</translation>
    </message>
    <message>
        <source>Proposed: %1. %2</source>
        <translation>Vorgeschlagen: %1. %2</translation>
    </message>
    <message>
        <source>nothing</source>
        <translation>nichts</translation>
    </message>
</context>
<context>
    <name>sober::app::TagsWindow</name>
    <message>
        <source>Reading the tags of all members …</source>
        <translation>Die Tags aller Mitglieder werden gelesen …</translation>
    </message>
    <message>
        <source>Put on the docket</source>
        <translation>Auf den Laufzettel</translation>
    </message>
    <message>
        <source>Take tags over</source>
        <translation>Tags übernehmen</translation>
    </message>
    <message>
        <source>What the others know</source>
        <translation>Was die anderen wissen</translation>
    </message>
    <message>
        <source>What would be written</source>
        <translation>Was geschrieben würde</translation>
    </message>
    <message>
        <source>%1 stays, and the others know nothing that it does not say itself.</source>
        <translation>%1 bleibt, und die anderen wissen nichts, was sie nicht selbst sagt.</translation>
    </message>
    <message>
        <source>%1 stays. What it lacks and the others agree on is chosen; where they disagree, it keeps its own unless you choose. Its audio data are not touched.</source>
        <translation>%1 bleibt. Was ihr fehlt und worin die anderen einig sind, ist gewählt; wo sie uneins sind, behält sie das Ihre, wenn Sie nicht wählen. Ihre Audiodaten bleiben unberührt.</translation>
    </message>
    <message>
        <source>Nothing would be written.</source>
        <translation>Nichts würde geschrieben.</translation>
    </message>
    <message>
        <source>Would write %1. Nothing changes until the docket is carried out; what the file was goes to the trash.</source>
        <translation>Geschrieben würde %1. Nichts ändert sich, bevor der Laufzettel ausgeführt wird; was die Datei war, kommt in den Papierkorb.</translation>
    </message>
</context>
<context>
    <name>sober::app::TakeoverForm</name>
    <message>
        <source>Field</source>
        <translation>Feld</translation>
    </message>
    <message>
        <source>Says now</source>
        <translation>Sagt jetzt</translation>
    </message>
    <message>
        <source>Shall say</source>
        <translation>Soll sagen</translation>
    </message>
    <message>
        <source>What %1 shall say</source>
        <translation>Was %1 sagen soll</translation>
    </message>
    <message>
        <source>nothing, as now</source>
        <translation>nichts, wie jetzt</translation>
    </message>
    <message>
        <source>as now</source>
        <translation>wie jetzt</translation>
    </message>
    <message>
        <source>%1   (the others disagree)</source>
        <translation>%1   (die anderen sind uneins)</translation>
    </message>
    <message>
        <source>%1   (another disagrees)</source>
        <translation>%1   (eine andere ist anderer Meinung)</translation>
    </message>
    <message>
        <source>%1   (%2)</source>
        <translation>%1   (%2)</translation>
    </message>
    <message>
        <source>nothing</source>
        <translation>nichts</translation>
    </message>
    <message>
        <source>Which picture to add</source>
        <translation>Welches Bild hinzukommt</translation>
    </message>
    <message>
        <source>none added</source>
        <translation>keines kommt hinzu</translation>
    </message>
    <message>
        <source>picture</source>
        <translation>Bild</translation>
    </message>
    <message>
        <source>has one</source>
        <translation>hat eines</translation>
    </message>
    <message>
        <source>%1 copies</source>
        <translation>%1 Kopien</translation>
    </message>
    <message>
        <source>album artist</source>
        <translation>Albumkünstler</translation>
    </message>
    <message>
        <source>disc number</source>
        <translation>Disc-Nummer</translation>
    </message>
    <message>
        <source>track number</source>
        <translation>Titelnummer</translation>
    </message>
    <message>
        <source>title</source>
        <translation>Titel</translation>
    </message>
    <message>
        <source>artist</source>
        <translation>Künstler</translation>
    </message>
    <message>
        <source>album</source>
        <translation>Album</translation>
    </message>
    <message>
        <source>date</source>
        <translation>Datum</translation>
    </message>
    <message>
        <source>genre</source>
        <translation>Genre</translation>
    </message>
    <message>
        <source>composer</source>
        <translation>Komponist</translation>
    </message>
    <message>
        <source>comment</source>
        <translation>Kommentar</translation>
    </message>
</context>
<context>
    <name>sober::app::TimePicture</name>
    <message>
        <source>Frequencies over time</source>
        <translation>Frequenzen über die Zeit</translation>
    </message>
    <message>
        <source>%1 kHz</source>
        <translation>%1 kHz</translation>
    </message>
    <message>
        <source>%1, %2 kHz</source>
        <translation>%1, %2 kHz</translation>
    </message>
</context>
<context>
    <name>sober::app::TimelineChart</name>
    <message>
        <source>The ledger&apos;s entries on a line of time</source>
        <translation>Die Einträge des Protokolls auf einer Zeitlinie</translation>
    </message>
    <message>
        <source>Nothing has been observed or done yet.</source>
        <translation>Noch wurde nichts beobachtet oder getan.</translation>
    </message>
    <message>
        <source>carried out</source>
        <translation>ausgeführt</translation>
    </message>
    <message>
        <source>observed</source>
        <translation>beobachtet</translation>
    </message>
</context>
<context>
    <name>sober::app::TraceChart</name>
    <message>
        <source>Trace of an earlier encoder&apos;s block grid</source>
        <translation>Spur vom Blockraster eines früheren Encoders</translation>
    </message>
    <message>
        <source>No position of any encoder&apos;s grid stands out.</source>
        <translation>Keine Lage vom Raster irgendeines Encoders sticht heraus.</translation>
    </message>
    <message>
        <source>%1 ×</source>
        <translation>%1 ×</translation>
    </message>
    <message>
        <source>Earlier %1 grid</source>
        <translation>Früheres %1-Raster</translation>
    </message>
    <message>
        <source>%1 grid</source>
        <translation>%1-Raster</translation>
    </message>
    <message>
        <source>Nothing above chance; the most, as %1</source>
        <translation>Nichts über dem Zufall; am meisten wie %1</translation>
    </message>
    <message>
        <source>%1: position %2 of %3, %4 × chance</source>
        <translation>%1: Lage %2 von %3, %4 × Zufall</translation>
    </message>
    <message>
        <source>position %1: %2 more coefficients near zero than at its neighbours</source>
        <translation>Lage %1: %2 mehr Koeffizienten nahe null als an den Nachbarn</translation>
    </message>
</context>
<context>
    <name>sober::app::TransferChanges</name>
    <message>
        <source>waits</source>
        <translation>wartet</translation>
    </message>
    <message>
        <source>at its new place</source>
        <translation>an ihrem neuen Ort</translation>
    </message>
    <message>
        <source>was there before</source>
        <translation>war schon da</translation>
    </message>
    <message>
        <source>failed</source>
        <translation>misslungen</translation>
    </message>
    <message>
        <source>At the new place</source>
        <translation>Am neuen Ort</translation>
    </message>
    <message>
        <source>What and why</source>
        <translation>Was und warum</translation>
    </message>
    <message>
        <source>What the transfer changes</source>
        <translation>Was die Übertragung ändert</translation>
    </message>
    <message>
        <source>does not come: %1</source>
        <translation>kommt nicht mit: %1</translation>
    </message>
    <message>
        <source>made for the new place</source>
        <translation>für den neuen Ort gemacht</translation>
    </message>
    <message>
        <source>%1 of %2 come</source>
        <translation>%1 von %2 kommen mit</translation>
    </message>
    <message>
        <source>another name: %1</source>
        <translation>anderer Name: %1</translation>
    </message>
    <message>
        <source>Names that change %1</source>
        <translation>Andere Namen %1</translation>
    </message>
    <message>
        <source>Does not come %1</source>
        <translation>Kommt nicht mit %1</translation>
    </message>
    <message>
        <source>Failed %1</source>
        <translation>Misslungen %1</translation>
    </message>
    <message>
        <source>Lists %1</source>
        <translation>Listen %1</translation>
    </message>
    <message>
        <source>All %1</source>
        <translation>Alle %1</translation>
    </message>
    <message>
        <source>Every name is as it was asked for.</source>
        <translation>Jeder Name ist wie gewünscht.</translation>
    </message>
    <message>
        <source>Everything that was chosen comes along.</source>
        <translation>Alles Gewählte kommt mit.</translation>
    </message>
    <message>
        <source>Nothing has failed.</source>
        <translation>Nichts ist misslungen.</translation>
    </message>
    <message>
        <source>No list comes along.</source>
        <translation>Keine Liste kommt mit.</translation>
    </message>
    <message>
        <source>Nothing is chosen yet.</source>
        <translation>Noch ist nichts gewählt.</translation>
    </message>
    <message>
        <source>no file is left in it: it goes to the trash</source>
        <translation>keine Datei liegt mehr darin: er geht in den Papierkorb</translation>
    </message>
    <message>
        <source>Folders left empty %1</source>
        <translation>Leere Ordner %1</translation>
    </message>
</context>
<context>
    <name>sober::app::TransferChart</name>
    <message>
        <source>What each place holds before, meanwhile and after</source>
        <translation>Was jeder Ort vorher, inzwischen und nachher enthält</translation>
    </message>
    <message>
        <source>%1 put in order</source>
        <translation>%1 in Ordnung gebracht</translation>
    </message>
    <message>
        <source>%1 of %2 come</source>
        <translation>%1 von %2 kommen mit</translation>
    </message>
    <message>
        <source>%1 held twice</source>
        <translation>%1 doppelt da</translation>
    </message>
    <message>
        <source>%1 let go</source>
        <translation>%1 freigegeben</translation>
    </message>
    <message>
        <source>%1 can be let go</source>
        <translation>%1 können gehen</translation>
    </message>
    <message>
        <source>how much is free is not known</source>
        <translation>wie viel frei ist, ist nicht bekannt</translation>
    </message>
    <message>
        <source>%1 free</source>
        <translation>%1 frei</translation>
    </message>
    <message>
        <source>%1 too much</source>
        <translation>%1 zu viel</translation>
    </message>
    <message>
        <source>%1 arrived</source>
        <translation>%1 angekommen</translation>
    </message>
    <message>
        <source>%1 of %2 arrived</source>
        <translation>%1 von %2 angekommen</translation>
    </message>
    <message>
        <source>%1 arrive</source>
        <translation>%1 kommen an</translation>
    </message>
    <message>
        <source>%1 are there</source>
        <translation>%1 sind da</translation>
    </message>
    <message>
        <source>Choose what comes along and where to: here stands what each place will hold.</source>
        <translation>Wählen Sie, was mitkommt und wohin: hier steht, was jeder Ort enthalten wird.</translation>
    </message>
    <message>
        <source>before</source>
        <translation>vorher</translation>
    </message>
    <message>
        <source>meanwhile</source>
        <translation>inzwischen</translation>
    </message>
    <message>
        <source>after</source>
        <translation>nachher</translation>
    </message>
    <message>
        <source>where to</source>
        <translation>wohin</translation>
    </message>
    <message>
        <source>from here</source>
        <translation>von hier</translation>
    </message>
    <message>
        <source>%1 that have no part in it</source>
        <translation>%1, die nicht beteiligt sind</translation>
    </message>
    <message>
        <source>%1 that come along</source>
        <translation>%1, die mitkommen</translation>
    </message>
    <message>
        <source>%1 that arrive</source>
        <translation>%1, die ankommen</translation>
    </message>
    <message>
        <source>%1 that are here and at the new place</source>
        <translation>%1, die hier und am neuen Ort sind</translation>
    </message>
    <message>
        <source>%1 that can go once the new place is proven</source>
        <translation>%1, die gehen können, sobald der neue Ort nachgewiesen ist</translation>
    </message>
    <message>
        <source>%1 that do not fit</source>
        <translation>%1, die keinen Platz haben</translation>
    </message>
</context>
<context>
    <name>sober::app::TransferDesk</name>
    <message>
        <source>planned</source>
        <translation>geplant</translation>
    </message>
    <message>
        <source>begun</source>
        <translation>begonnen</translation>
    </message>
    <message>
        <source>copied</source>
        <translation>kopiert</translation>
    </message>
    <message>
        <source>proven</source>
        <translation>nachgewiesen</translation>
    </message>
    <message>
        <source>released</source>
        <translation>freigegeben</translation>
    </message>
    <message>
        <source>Transfer</source>
        <translation>Übertragung</translation>
    </message>
    <message>
        <source>Will it fit, and what will break?</source>
        <translation>Wird es passen, und was wird zerbrechen?</translation>
    </message>
    <message>
        <source>How far it has come</source>
        <translation>Wie weit sie gekommen ist</translation>
    </message>
    <message>
        <source>Which transfer</source>
        <translation>Welche Übertragung</translation>
    </message>
    <message>
        <source>a new transfer</source>
        <translation>eine neue Übertragung</translation>
    </message>
    <message>
        <source>What comes along, in figures</source>
        <translation>Was mitkommt, in Zahlen</translation>
    </message>
    <message>
        <source>Stopped; run it again to go on.</source>
        <translation>Angehalten; starten Sie sie wieder, um fortzufahren.</translation>
    </message>
    <message>
        <source>Transferred: %1 carried out.</source>
        <translation>Übertragen: %1 ausgeführt.</translation>
    </message>
    <message>
        <source>And what no list names</source>
        <translation>Und was keine Liste nennt</translation>
    </message>
    <message>
        <source>What would be forgotten if the old place went comes along too</source>
        <translation>Was vergessen würde, wenn der alte Ort verschwände, kommt auch mit</translation>
    </message>
    <message>
        <source>Of copies only the keeper</source>
        <translation>Von Kopien nur die bleibende</translation>
    </message>
    <message>
        <source>In place of copies that are advised to be retired, the one that is to be kept</source>
        <translation>Statt Kopien, die auszusondern geraten ist, die zu behaltende</translation>
    </message>
    <message>
        <source>Keep the plan</source>
        <translation>Plan behalten</translation>
    </message>
    <message>
        <source>Run</source>
        <translation>Starten</translation>
    </message>
    <message>
        <source>Prove</source>
        <translation>Nachweisen</translation>
    </message>
    <message>
        <source>Read everything back, open every list, play the beginning of every entry</source>
        <translation>Alles zurücklesen, jede Liste öffnen, den Anfang jedes Eintrags abspielen</translation>
    </message>
    <message>
        <source>Let the old go…</source>
        <translation>Altes gehen lassen…</translation>
    </message>
    <message>
        <source>Put the old on the docket, to be retired; only of what is proven</source>
        <translation>Das Alte auf den Laufzettel setzen, zum Aussondern; nur was nachgewiesen ist</translation>
    </message>
    <message>
        <source>Show the report</source>
        <translation>Bericht zeigen</translation>
    </message>
    <message>
        <source>Forget</source>
        <translation>Vergessen</translation>
    </message>
    <message>
        <source>Forget this plan, or a transfer that has ended; nothing on a drive changes</source>
        <translation>Diesen Plan vergessen, oder eine beendete Übertragung; auf keinem Laufwerk ändert sich etwas</translation>
    </message>
    <message>
        <source>%1, %2: to %3, %4</source>
        <translation>%1, %2: nach %3, %4</translation>
    </message>
    <message>
        <source>Choose on the left what comes along: Space takes a line in.</source>
        <translation>Wählen Sie links, was mitkommt: die Leertaste nimmt eine Zeile hinzu.</translation>
    </message>
    <message>
        <source>Say on the right where to. Nothing changes before you run it.</source>
        <translation>Sagen Sie rechts, wohin. Nichts ändert sich, bevor Sie starten.</translation>
    </message>
    <message>
        <source>%1, %2, %3 come along</source>
        <translation>%1, %2, %3 kommen mit</translation>
    </message>
    <message>
        <source>%1 do not</source>
        <translation>%1 nicht</translation>
    </message>
    <message>
        <source>%1 do not decode whole</source>
        <translation>%1 lassen sich nicht ganz dekodieren</translation>
    </message>
    <message>
        <source>%1 are not what they claim</source>
        <translation>%1 sind nicht, was sie angeben</translation>
    </message>
    <message>
        <source>%1 of %2 encoded were lossy already</source>
        <translation>%1 von %2 neu kodierten waren schon verlustbehaftet</translation>
    </message>
    <message>
        <source>%1 in no list would be left behind</source>
        <translation>%1 in keiner Liste blieben zurück</translation>
    </message>
    <message>
        <source>%1 there would be no longer chosen</source>
        <translation>%1 dort wären nicht mehr gewählt</translation>
    </message>
    <message>
        <source>%1 needed; how much is free there is not known</source>
        <translation>%1 nötig; wie viel dort frei ist, ist nicht bekannt</translation>
    </message>
    <message>
        <source>%1 needed, %2 free: it fits</source>
        <translation>%1 nötig, %2 frei: es passt</translation>
    </message>
    <message>
        <source>%1 needed, %2 free: it does not fit, %3 have to be left out</source>
        <translation>%1 nötig, %2 frei: es passt nicht, %3 müssen wegbleiben</translation>
    </message>
    <message>
        <source>%1 to %2</source>
        <translation>%1 bis %2</translation>
    </message>
    <message>
        <source>%1, %2 at their new place</source>
        <translation>%1, %2 an ihrem neuen Ort</translation>
    </message>
    <message>
        <source>%1 failed</source>
        <translation>%1 misslungen</translation>
    </message>
    <message>
        <source>%1 in no list left behind</source>
        <translation>%1 in keiner Liste zurückgelassen</translation>
    </message>
    <message>
        <source>proven %1</source>
        <translation>nachgewiesen %1</translation>
    </message>
    <message>
        <source>The device was described and is not here: connect it and plan again</source>
        <translation>Das Gerät war nur beschrieben und ist nicht hier: schließen Sie es an und planen Sie neu</translation>
    </message>
    <message>
        <source>The proof holds: %1 read back, %2 of %3 begin to play.</source>
        <translation>Der Nachweis hält: %1 zurückgelesen, %2 von %3 lassen sich abspielen.</translation>
    </message>
    <message>
        <source>The proof does not hold: %1. %2</source>
        <translation>Der Nachweis hält nicht: %1. %2</translation>
    </message>
    <message>
        <source>Let the rest go…</source>
        <translation>Rest gehen lassen …</translation>
    </message>
    <message>
        <source>Put on the docket what a transfer brought there and is no longer among what comes, to be retired</source>
        <translation>Auf den Laufzettel setzen, was eine Übertragung dorthin gebracht hat und nicht mehr zu dem gehört, was kommt, zum Aussondern</translation>
    </message>
    <message>
        <source>%1 left empty, for the trash</source>
        <translation>%1 leer, für den Papierkorb</translation>
    </message>
</context>
<context>
    <name>sober::app::TransferForm</name>
    <message>
        <source>Add a part…</source>
        <translation>Teil hinzufügen…</translation>
    </message>
    <message>
        <source>What files will be called</source>
        <translation>Wie die Dateien heißen werden</translation>
    </message>
    <message>
        <source>The folder or drive that it goes to</source>
        <translation>Der Ordner oder das Laufwerk, wohin es geht</translation>
    </message>
    <message>
        <source>a folder or drive</source>
        <translation>ein Ordner oder Laufwerk</translation>
    </message>
    <message>
        <source>Choose…</source>
        <translation>Wählen…</translation>
    </message>
    <message>
        <source>Where to</source>
        <translation>Wohin</translation>
    </message>
    <message>
        <source>What it can hold</source>
        <translation>Was es fassen kann</translation>
    </message>
    <message>
        <source>as it is found</source>
        <translation>wie es vorgefunden wird</translation>
    </message>
    <message>
        <source>a card with FAT32</source>
        <translation>eine Karte mit FAT32</translation>
    </message>
    <message>
        <source>a card with exFAT</source>
        <translation>eine Karte mit exFAT</translation>
    </message>
    <message>
        <source>a drive with NTFS</source>
        <translation>ein Laufwerk mit NTFS</translation>
    </message>
    <message>
        <source>a drive with ext4</source>
        <translation>ein Laufwerk mit ext4</translation>
    </message>
    <message>
        <source>a disc (ISO 9660)</source>
        <translation>eine Disc (ISO 9660)</translation>
    </message>
    <message>
        <source>Room on a device that is not here, in megabytes</source>
        <translation>Platz auf einem Gerät, das nicht hier ist, in Megabyte</translation>
    </message>
    <message>
        <source>MB free</source>
        <translation>MB frei</translation>
    </message>
    <message>
        <source>For a device that is not here: how many megabytes are free on it</source>
        <translation>Für ein Gerät, das nicht hier ist: wie viele Megabyte darauf frei sind</translation>
    </message>
    <message>
        <source>Which is</source>
        <translation>Welches</translation>
    </message>
    <message>
        <source>What becomes of the old</source>
        <translation>Was aus dem Alten wird</translation>
    </message>
    <message>
        <source>Copy: the old stays until it is let go</source>
        <translation>Kopieren: das Alte bleibt, bis es freigegeben wird</translation>
    </message>
    <message>
        <source>Put in order in place, by renames</source>
        <translation>Am Ort ordnen, durch Umbenennen</translation>
    </message>
    <message>
        <source>In steps: each old one goes once its copy is proven</source>
        <translation>In Schritten: jede alte geht, sobald ihre Kopie nachgewiesen ist</translation>
    </message>
    <message>
        <source>How</source>
        <translation>Wie</translation>
    </message>
    <message>
        <source>In which order</source>
        <translation>In welcher Ordnung</translation>
    </message>
    <message>
        <source>in the folders as they are</source>
        <translation>in den Ordnern, wie sie sind</translation>
    </message>
    <message>
        <source>all in one folder</source>
        <translation>alles in einem Ordner</translation>
    </message>
    <message>
        <source>in an order by tags</source>
        <translation>in einer Ordnung nach Tags</translation>
    </message>
    <message>
        <source>Order</source>
        <translation>Ordnung</translation>
    </message>
    <message>
        <source>The order, from its parts</source>
        <translation>Die Ordnung, aus ihren Teilen</translation>
    </message>
    <message>
        <source>Its parts</source>
        <translation>Ihre Teile</translation>
    </message>
    <message>
        <source>The lists&apos; form</source>
        <translation>Die Form der Listen</translation>
    </message>
    <message>
        <source>lists as they are</source>
        <translation>Listen, wie sie sind</translation>
    </message>
    <message>
        <source>lists as M3U8</source>
        <translation>Listen als M3U8</translation>
    </message>
    <message>
        <source>lists as XSPF</source>
        <translation>Listen als XSPF</translation>
    </message>
    <message>
        <source>lists as PLS</source>
        <translation>Listen als PLS</translation>
    </message>
    <message>
        <source>In which form</source>
        <translation>In welcher Form</translation>
    </message>
    <message>
        <source>Form</source>
        <translation>Form</translation>
    </message>
    <message>
        <source>album artist, else artist</source>
        <translation>Albumkünstler, sonst Künstler</translation>
    </message>
    <message>
        <source>artist</source>
        <translation>Künstler</translation>
    </message>
    <message>
        <source>album</source>
        <translation>Album</translation>
    </message>
    <message>
        <source>disc, where there are several</source>
        <translation>Disc, wo es mehrere gibt</translation>
    </message>
    <message>
        <source>track, two digits</source>
        <translation>Titelnummer, zweistellig</translation>
    </message>
    <message>
        <source>title, else the file&apos;s name</source>
        <translation>Titel, sonst der Name der Datei</translation>
    </message>
    <message>
        <source>date</source>
        <translation>Datum</translation>
    </message>
    <message>
        <source>year</source>
        <translation>Jahr</translation>
    </message>
    <message>
        <source>genre</source>
        <translation>Genre</translation>
    </message>
    <message>
        <source>composer</source>
        <translation>Komponist</translation>
    </message>
    <message>
        <source>the folders as they are</source>
        <translation>die Ordner, wie sie sind</translation>
    </message>
    <message>
        <source>a new folder from here on</source>
        <translation>ab hier ein neuer Ordner</translation>
    </message>
    <message>
        <source>text between two parts</source>
        <translation>Text zwischen zwei Teilen</translation>
    </message>
    <message>
        <source>%1: %2%3</source>
        <translation>%1: %2%3</translation>
    </message>
    <message>
        <source>, too much</source>
        <translation>, zu viel</translation>
    </message>
    <message>
        <source>Lossless takes %1 times a good lossy file among what comes; rule of thumb: 4 to 5</source>
        <translation>Verlustfreies braucht %1-mal so viel wie eine gute verlustbehaftete Datei bei dem, was mitkommt; Faustregel: 4 bis 5</translation>
    </message>
    <message>
        <source>Lossless takes 4 to 5 times a good lossy file (rule of thumb)</source>
        <translation>Verlustfreies braucht 4- bis 5-mal so viel wie eine gute verlustbehaftete Datei (Faustregel)</translation>
    </message>
    <message>
        <source>a small card with FAT16</source>
        <translation>eine kleine Karte mit FAT16</translation>
    </message>
    <message>
        <source>The longest path that the player reads, in characters</source>
        <translation>Der längste Pfad, den der Player liest, in Zeichen</translation>
    </message>
    <message>
        <source>Where the player reads no longer paths: how many characters folders and name may have together</source>
        <translation>Wo der Player keine längeren Pfade liest: wie viele Zeichen Ordner und Name zusammen haben dürfen</translation>
    </message>
    <message>
        <source>Characters…</source>
        <translation>Zeichen…</translation>
    </message>
    <message>
        <source>What stands for characters that names there cannot hold</source>
        <translation>Was für Zeichen steht, die Namen dort nicht haben können</translation>
    </message>
    <message>
        <source>longest path that the player reads</source>
        <translation>längster Pfad, den der Player liest</translation>
    </message>
    <message>
        <source>Names</source>
        <translation>Namen</translation>
    </message>
</context>
<context>
    <name>sober::app::TransferSources</name>
    <message>
        <source>What comes along</source>
        <translation>Was mitkommt</translation>
    </message>
    <message>
        <source>Which is</source>
        <translation>Welches</translation>
    </message>
    <message>
        <source>What can come along</source>
        <translation>Was mitkommen kann</translation>
    </message>
    <message>
        <source>Survey a volume or take a player&apos;s lists in first.</source>
        <translation>Erfassen Sie zuerst einen Datenträger oder nehmen Sie die Listen eines Abspielers auf.</translation>
    </message>
    <message>
        <source>Space or a double click takes one in or out</source>
        <translation>Leertaste oder Doppelklick nimmt eine hinzu oder heraus</translation>
    </message>
    <message>
        <source>all that %1 knows</source>
        <translation>alles, was %1 kennt</translation>
    </message>
    <message>
        <source>the list %1</source>
        <translation>die Liste %1</translation>
    </message>
    <message>
        <source>of %1</source>
        <translation>von %1</translation>
    </message>
    <message>
        <source>all of %1</source>
        <translation>alles von %1</translation>
    </message>
    <message>
        <source>away</source>
        <translation>nicht da</translation>
    </message>
    <message>
        <source>standing list</source>
        <translation>ständige Liste</translation>
    </message>
    <message>
        <source>found</source>
        <translation>gefunden</translation>
    </message>
</context>
<context>
    <name>sober::app::VolumeBox</name>
    <message>
        <source>Volume %1, %2</source>
        <translation>Datenträger %1, %2</translation>
    </message>
    <message>
        <source>at hand</source>
        <translation>zur Hand</translation>
    </message>
    <message>
        <source>away</source>
        <translation>nicht da</translation>
    </message>
    <message>
        <source>%1 free of %2</source>
        <translation>%1 frei von %2</translation>
    </message>
    <message>
        <source>surveyed %1</source>
        <translation>erfasst am %1</translation>
    </message>
    <message>
        <source>not surveyed to its end yet</source>
        <translation>noch nicht zu Ende erfasst</translation>
    </message>
    <message>
        <source>at hand, %1 free</source>
        <translation>zur Hand, %1 frei</translation>
    </message>
    <message>
        <source>No. %1, %2</source>
        <translation>Nr. %1, %2</translation>
    </message>
</context>
<context>
    <name>sober::app::VolumeChanges</name>
    <message>
        <source>Another label for %1</source>
        <translation>Ein anderer Name für %1</translation>
    </message>
    <message>
        <source>What it is called here; nothing on the drive is changed.</source>
        <translation>Wie er hier heißt; auf dem Laufwerk ändert sich nichts.</translation>
    </message>
    <message>
        <source>Use this label</source>
        <translation>Diesen Namen verwenden</translation>
    </message>
    <message>
        <source>Where is the copy that takes the place of %1?</source>
        <translation>Wo ist die Kopie, die an die Stelle von %1 tritt?</translation>
    </message>
</context>
<context>
    <name>sober::app::WhereaboutsDesk</name>
    <message>
        <source>Whereabouts</source>
        <translation>Verbleib</translation>
    </message>
    <message>
        <source>Where did it go?</source>
        <translation>Wo ist es geblieben?</translation>
    </message>
    <message>
        <source>Broken references</source>
        <translation>Zerbrochene Verweise</translation>
    </message>
    <message>
        <source>Missing</source>
        <translation>Fehlende</translation>
    </message>
    <message>
        <source>References to look at</source>
        <translation>Anzusehende Verweise</translation>
    </message>
</context>
<context>
    <name>sober::app::Workbench</name>
    <message numerus="yes">
        <source> %n more could not be looked into.</source>
        <translation>
            <numerusform> In %n weiteres konnte nicht hineingesehen werden.</numerusform>
            <numerusform> In %n weitere konnte nicht hineingesehen werden.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>sober::app::WriteImageWindow</name>
    <message>
        <source>Write over it</source>
        <translation>Darüberschreiben</translation>
    </message>
    <message>
        <source>Write an image over a drive</source>
        <translation>Ein Abbild über ein Laufwerk schreiben</translation>
    </message>
    <message>
        <source>What is lost</source>
        <translation>Was verloren geht</translation>
    </message>
    <message>
        <source>%1 is written onto %2. All that is on it now is lost, and nothing brings it back. It has %3 (%4 bytes) and its label is “%5”.</source>
        <translation>%1 wird auf %2 geschrieben. Alles, was jetzt darauf ist, geht verloren, und nichts bringt es zurück. Es hat %3 (%4 Bytes), und sein Name ist „%5“.</translation>
    </message>
    <message>
        <source>Type its label and its size in bytes, to say that it is the right one.</source>
        <translation>Tippen Sie seinen Namen und seine Größe in Bytes, um zu sagen, dass es das richtige ist.</translation>
    </message>
    <message>
        <source>Label of the drive</source>
        <translation>Name des Laufwerks</translation>
    </message>
    <message>
        <source>Size of the drive in bytes</source>
        <translation>Größe des Laufwerks in Bytes</translation>
    </message>
    <message>
        <source>Label</source>
        <translation>Name</translation>
    </message>
    <message>
        <source>Size in bytes</source>
        <translation>Größe in Bytes</translation>
    </message>
</context>
</TS>
