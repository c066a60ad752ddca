<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Tables;

use Plinth\Core\Exchange\Zip\ZipFile;

/**
 * Tables as an OpenDocument spreadsheet (ISO/IEC 26300-1, ODF 1.2): a sheet each. From memory of the standard; read back by odfpy in the
 * tests.
 */
final class OdsWriter
{
    private const TYPE = 'application/vnd.oasis.opendocument.spreadsheet';
    private const OFFICE = 'urn:oasis:names:tc:opendocument:xmlns:office:1.0';

    /** @param list<Table> $tables */
    public static function write(array $tables): string
    {
        // The type comes first and as it is, so that whoever looks at the first bytes knows what it is.
        return ZipFile::of([
            'mimetype' => self::TYPE,
            'META-INF/manifest.xml' => self::manifest(),
            'content.xml' => self::content($tables),
        ], ['mimetype']);
    }

    private static function manifest(): string
    {
        $xml = Xml::begun();
        $xml->startElement('manifest:manifest');
        $xml->writeAttribute('xmlns:manifest', 'urn:oasis:names:tc:opendocument:xmlns:manifest:1.0');
        $xml->writeAttribute('manifest:version', '1.2');
        foreach (['/' => self::TYPE, 'content.xml' => 'text/xml'] as $path => $type) {
            $xml->startElement('manifest:file-entry');
            $xml->writeAttribute('manifest:full-path', $path);
            $xml->writeAttribute('manifest:media-type', $type);
            $xml->endElement();
        }

        return Xml::ended($xml);
    }

    /** @param list<Table> $tables */
    private static function content(array $tables): string
    {
        $xml = Xml::begun();
        $xml->startElement('office:document-content');
        $xml->writeAttribute('xmlns:office', self::OFFICE);
        $xml->writeAttribute('xmlns:table', 'urn:oasis:names:tc:opendocument:xmlns:table:1.0');
        $xml->writeAttribute('xmlns:text', 'urn:oasis:names:tc:opendocument:xmlns:text:1.0');
        $xml->writeAttribute('office:version', '1.2');
        $xml->startElement('office:body');
        $xml->startElement('office:spreadsheet');
        foreach ($tables as $table) {
            $xml->startElement('table:table');
            $xml->writeAttribute('table:name', $table->name);
            foreach ([$table->head, ...$table->rows] as $row) {
                $xml->startElement('table:table-row');
                foreach ($row as $value) {
                    self::cell($xml, $value);
                }
                $xml->endElement();
            }
            $xml->endElement();
        }

        return Xml::ended($xml);
    }

    private static function cell(\XMLWriter $xml, string|int|float|null $value): void
    {
        $xml->startElement('table:table-cell');
        if (\is_string($value)) {
            $xml->writeAttribute('office:value-type', 'string');
            // A paragraph for each line.
            foreach (explode("\n", strtr(Xml::text($value), ["\r\n" => "\n", "\r" => "\n"])) as $line) {
                $xml->writeElement('text:p', $line);
            }
        } elseif (null !== $value) {
            $xml->writeAttribute('office:value-type', 'float');
            $xml->writeAttribute('office:value', (string) json_encode($value));
            $xml->writeElement('text:p', (string) json_encode($value));
        }
        $xml->endElement();
    }
}
