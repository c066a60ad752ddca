<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Units;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Units\Exception\UnreadablePitch;
use Plinth\Core\Units\Pitch;

/** A pitch is read as roofs are figured: degrees, rise to run, parts of a hundred. */
final class PitchTest extends TestCase
{
    #[TestWith(['35', 35.0])]
    #[TestWith([' 22,5° ', 22.5])]
    #[TestWith(['0', 0.0])]
    #[TestWith(['1:1', 45.0])]
    #[TestWith(['6/12', 26.565051177])]
    #[TestWith(['2 %', 1.145762838])]
    public function testWhatIsTypedIsRead(string $text, float $degrees): void
    {
        self::assertEqualsWithDelta($degrees, Pitch::parse($text)->degrees, 1e-8);
    }

    #[TestWith([''])]
    #[TestWith(['steep'])]
    #[TestWith(['1:0'])]
    #[TestWith(['-5'])]
    #[TestWith(['86'])]
    public function testWhatIsNoneIsRefusedInWords(string $text): void
    {
        $this->expectException(UnreadablePitch::class);
        $this->expectExceptionMessage("“{$text}”");
        Pitch::parse($text);
    }
}
