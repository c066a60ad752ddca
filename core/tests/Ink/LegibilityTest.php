<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Ink\Page\Exception\UnreadableRaster;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Pages\Legibility;

/** What a page can be read for is said in words that a designer judges by. */
final class LegibilityTest extends TestCase
{
    #[TestWith([25.0, "Coarse: a thin partition is about 4 px wide; expect ±15\u{202F}mm."])]
    #[TestWith([6.35, "Clear: a thin partition is about 16 px wide; expect ±3.8\u{202F}mm."])]
    #[TestWith([80.0, "Too coarse for partitions: a thin one is about 1.3 px wide, its faces run together; expect ±48\u{202F}mm. A finer scan would help."])]
    public function testItSaysHowWideAPartitionShows(float $mmPerPixel, string $words): void
    {
        self::assertSame($words, Legibility::at($mmPerPixel)->words);
    }

    public function testARasterHoldsAsManyBytesAsPixels(): void
    {
        self::assertSame(
            "\x0A\x14",
            (new GreyRaster(4, 2, "\x05\x0F\x10\x18\x05\x0F\x10\x18"))->shrunk(2)->bytes,
            'Averages of whole blocks.',
        );
        self::assertSame("\xFF\x00", (new GreyRaster(2, 1, "\x00\xFF"))->inverted()->bytes);
        $this->expectException(UnreadableRaster::class);
        $this->expectExceptionMessage('3 × 2 px needs as many bytes; 5 came');
        new GreyRaster(3, 2, '12345');
    }
}
