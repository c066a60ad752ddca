<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Tables;

use Plinth\Core\Exchange\Zip\ZipFile;

/**
 * Tables as an Office Open XML workbook (ISO/IEC 29500-1, transitional): a sheet each, texts within their cells. From memory of the
 * standard; read back by openpyxl in the tests.
 */
final class XlsxWriter
{
    private const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
    private const RELATIONS = 'http://schemas.openxmlformats.org/package/2006/relationships';
    private const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
    private const SPREADSHEET = 'application/vnd.openxmlformats-officedocument.spreadsheetml.';
    /** Spreadsheets write a control character, and an underscore that looks as if it began one, by its number. */
    private const ESCAPED = '/_(?=x[0-9A-Fa-f]{4}_)/';

    /** @param list<Table> $tables */
    public static function write(array $tables): string
    {
        $sheets = [];
        foreach ($tables as $i => $table) {
            $sheets['xl/worksheets/sheet'.($i + 1).'.xml'] = self::sheet($table);
        }

        return ZipFile::of([
            '[Content_Types].xml' => self::types(array_keys($sheets)),
            '_rels/.rels' => self::relations([['officeDocument', 'xl/workbook.xml']]),
            'xl/workbook.xml' => self::workbook($tables),
            'xl/_rels/workbook.xml.rels' => self::relations(array_map(
                static fn (string $name): array => ['worksheet', substr($name, 3)],
                array_keys($sheets),
            )),
            ...$sheets,
        ]);
    }

    /** @param list<string> $sheets */
    private static function types(array $sheets): string
    {
        $xml = Xml::begun();
        $xml->startElementNs(null, 'Types', 'http://schemas.openxmlformats.org/package/2006/content-types');
        $defaults = ['rels' => 'application/vnd.openxmlformats-package.relationships+xml', 'xml' => 'application/xml'];
        foreach ($defaults as $extension => $type) {
            $xml->startElement('Default');
            $xml->writeAttribute('Extension', $extension);
            $xml->writeAttribute('ContentType', $type);
            $xml->endElement();
        }
        foreach (['xl/workbook.xml' => 'sheet.main+xml', ...array_fill_keys($sheets, 'worksheet+xml')] as $name => $type) {
            $xml->startElement('Override');
            $xml->writeAttribute('PartName', "/$name");
            $xml->writeAttribute('ContentType', self::SPREADSHEET.$type);
            $xml->endElement();
        }

        return Xml::ended($xml);
    }

    /** @param list<array{string, string}> $to kind and target of each */
    private static function relations(array $to): string
    {
        $xml = Xml::begun();
        $xml->startElementNs(null, 'Relationships', self::RELATIONS);
        foreach ($to as $i => [$kind, $target]) {
            $xml->startElement('Relationship');
            $xml->writeAttribute('Id', 'rId'.($i + 1));
            $xml->writeAttribute('Type', self::OFFICE."/$kind");
            $xml->writeAttribute('Target', $target);
            $xml->endElement();
        }

        return Xml::ended($xml);
    }

    /** @param list<Table> $tables */
    private static function workbook(array $tables): string
    {
        $xml = Xml::begun();
        $xml->startElementNs(null, 'workbook', self::MAIN);
        $xml->writeAttribute('xmlns:r', self::OFFICE);
        $xml->startElement('sheets');
        foreach ($tables as $i => $table) {
            $xml->startElement('sheet');
            $xml->writeAttribute('name', $table->name);
            $xml->writeAttribute('sheetId', (string) ($i + 1));
            $xml->writeAttribute('r:id', 'rId'.($i + 1));
            $xml->endElement();
        }

        return Xml::ended($xml);
    }

    private static function sheet(Table $table): string
    {
        $xml = Xml::begun();
        $xml->startElementNs(null, 'worksheet', self::MAIN);
        $xml->startElement('sheetData');
        foreach ([$table->head, ...$table->rows] as $r => $row) {
            $xml->startElement('row');
            $xml->writeAttribute('r', (string) ($r + 1));
            foreach ($row as $c => $value) {
                if (null !== $value) {
                    self::cell($xml, self::column($c).($r + 1), $value);
                }
            }
            $xml->endElement();
        }

        return Xml::ended($xml);
    }

    private static function cell(\XMLWriter $xml, string $at, string|int|float $value): void
    {
        $xml->startElement('c');
        $xml->writeAttribute('r', $at);
        if (\is_string($value)) {
            $xml->writeAttribute('t', 'inlineStr');
            $xml->startElement('is');
            $xml->startElement('t');
            $xml->writeAttribute('xml:space', 'preserve');
            $xml->text((string) preg_replace(self::ESCAPED, '_x005F_', Xml::text($value)));
            $xml->endElement();
            $xml->endElement();
        } else {
            $xml->writeElement('v', (string) json_encode($value));
        }
        $xml->endElement();
    }

    /** A, B, … Z, AA, AB, … */
    private static function column(int $number): string
    {
        $name = '';
        for ($n = $number + 1; $n > 0; $n = intdiv($n - 1, 26)) {
            $name = \chr(65 + ($n - 1) % 26).$name;
        }

        return $name;
    }
}
