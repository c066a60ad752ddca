<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

/**
 * What a bound PDF says beside its pages: bookmarks, title, language, boxes; as qpdf takes it (its JSON, version 2).
 *
 * @phpstan-type Dictionary array<string, mixed>
 * @phpstan-type Document array{pages: list<array{object: string}>, qpdf: array{array{maxobjectid: int, pdfversion: string}, array<string, array{value: Dictionary}>}}
 */
final class PdfWrapping
{
    private const LANGUAGE = 'en';
    private const BOXES = ['/CropBox', '/TrimBox', '/BleedBox'];

    /**
     * @param string $json what qpdf says of the pages as they are bound
     * @param list<string> $bookmarks
     *
     * @return string JSON that adds to it
     */
    public static function of(string $json, string $title, array $bookmarks): string
    {
        /** @var Document $document as qpdf, which ran here, writes it */
        $document = json_decode($json, true, 512, \JSON_THROW_ON_ERROR);
        [$head, $objects] = $document['qpdf'];
        $last = $head['maxobjectid'];
        $pages = array_column($document['pages'], 'object');
        $changed = [];
        foreach ($pages as $page) {
            $values = $objects["obj:$page"]['value'];
            // The paper is cut where it ends: nothing is printed beyond.
            $changed["obj:$page"] = ['value' => $values + array_fill_keys(self::BOXES, $values['/MediaBox'] ?? [])];
        }
        $number = static fn (int $object): string => "$object 0 R";
        [$outlines, $information, $first] = [$last + 1, $last + 2, $last + 3];
        $count = \count($pages);
        foreach ($pages as $i => $page) {
            $changed['obj:'.$number($first + $i)] = ['value' => [
                '/Title' => 'u:'.($bookmarks[$i] ?? 'Sheet '.($i + 1)), '/Parent' => $number($outlines), '/Dest' => [$page, '/Fit'],
                ...(0 === $i ? [] : ['/Prev' => $number($first + $i - 1)]), ...($i === $count - 1 ? [] : ['/Next' => $number($first + $i + 1)]),
            ]];
        }
        $changed['obj:'.$number($outlines)] = ['value' => [
            '/Type' => '/Outlines', '/Count' => $count, '/First' => $number($first), '/Last' => $number($first + $count - 1),
        ]];
        $changed['obj:'.$number($information)] = ['value' => ['/Title' => "u:$title"]];
        $trailer = $objects['trailer']['value'];
        $root = \is_string($trailer['/Root'] ?? null) ? $trailer['/Root'] : '';
        $changed["obj:$root"] = ['value' => [
            ...$objects["obj:$root"]['value'], '/Outlines' => $number($outlines), '/PageMode' => '/UseOutlines', '/Lang' => 'u:'.self::LANGUAGE,
            '/ViewerPreferences' => ['/DisplayDocTitle' => true],
        ]];
        $changed['trailer'] = ['value' => [...$trailer, '/Info' => $number($information)]];
        $head = [
            'jsonversion' => 2, 'pdfversion' => $head['pdfversion'], 'pushedinheritedpageresources' => false, 'calledgetallpages' => false,
            'maxobjectid' => $first + $count - 1,
        ];

        return json_encode(['qpdf' => [$head, $changed]], \JSON_THROW_ON_ERROR);
    }
}
