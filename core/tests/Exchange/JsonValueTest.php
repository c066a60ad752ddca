<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Exchange;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Plan\Model\Line;

final class JsonValueTest extends TestCase
{
    public function testValuesAreReadWithTheirTypes(): void
    {
        $json = JsonValue::parse('{"n": 3, "t": "x", "b": true, "p": [1, 2.5], "l": [{"k": 1}], "none": null, "line": "left"}');
        self::assertSame(3.0, $json->get('n')->number());
        self::assertSame('x', $json->get('t')->text());
        self::assertTrue($json->get('b')->boolean());
        self::assertSame([1.0, 2.5], $json->get('p')->pair());
        self::assertSame('l/0/k', $json->list('l')[0]->get('k')->at);
        self::assertNull($json->optional('none'));
        self::assertSame([], $json->list('absent'));
        self::assertSame(Line::Left, $json->get('line')->choice(Line::class));
    }

    public function testEveryErrorSaysWhere(): void
    {
        $json = JsonValue::parse('{"a": {"b": [1, "x"]}, "n": -1, "big": 9, "t": "abc"}');
        foreach ([
            'a/b/1' => static fn () => $json->get('a')->get('b')->pair(),
            'a/c' => static fn () => $json->get('a')->get('c'),
            'a/b' => static fn () => $json->get('a')->object(['c']),
            'n' => static fn () => $json->get('n')->notNegative(),
            'big' => static fn () => $json->get('big')->positive(5.0),
            't' => static fn () => $json->get('t')->text(2),
            'a' => static fn () => $json->list('a'),
        ] as $at => $read) {
            try {
                $read();
                self::fail("$at was read.");
            } catch (UnreadableDocument $e) {
                self::assertSame($at, $e->at());
                self::assertStringContainsString($at, $e->getMessage());
            }
        }
    }

    public function testWhatIsNoJsonIsSaidSo(): void
    {
        $this->expectException(UnreadableDocument::class);
        $this->expectExceptionMessage('not JSON');
        JsonValue::parse('{"a": ');
    }
}
