<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Ink\Page\GreyFile;

/** A scan comes in by its content, is cut into tiles by the worker, and is trued up by what is stated about it. */
final class BringInTest extends TestCase
{
    private const SCAN = __DIR__.'/../../demo/sallow-fen-ground.jpg';

    private Desk $desk;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
    }

    public function testAScanBecomesTilesAndItsBytesAreKept(): void
    {
        $state = $this->desk->bringIn(self::SCAN, 'whatever.tiff');
        self::assertSame(hash_file('sha256', self::SCAN), Desk::rows($state, 'source')[0]['values']['sha256']);
        self::assertSame([3307, 2339], [
            Desk::rows($state, 'page')[0]['values']['width'],
            Desk::rows($state, 'page')[0]['values']['height'],
        ]);
        $page = $this->desk->imported();
        self::assertSame('done', $page['state']);
        self::assertSame('.png', $page['tileSuffix'], 'Grey line work keeps its pixels.');
        foreach (['tiles/4/9/12', 'tiles/0/0/0', 'preview'] as $picture) {
            [$status, $body] = $this->desk->client->send('GET', $this->desk->ofPage($picture));
            self::assertSame(200, $status);
            self::assertIsString($body['text']);
            self::assertNotFalse(imagecreatefromstring($body['text']), $picture);
        }
        self::assertSame(404, $this->desk->client->send('GET', $this->desk->ofPage('tiles/4/99/0'))[0]);
        $grey = $this->desk->folder().'/grey.v';
        $wall = (new GreyFile($grey, 3307, 2339, 64))->window(1180, 1825, 4, 4);
        self::assertLessThan(130, \ord($wall->bytes[5]), 'Solid wall: the grey values lie where the pixels do.');
        self::assertGreaterThan(200, \ord((new GreyFile($grey, 3307, 2339, 64))->window(3300, 2330, 4, 4)->bytes[5]), 'Paper.');
    }

    public function testSentTwiceUnderOneIdItIsThereOnce(): void
    {
        $change = Desk::newId();
        $this->desk->bringIn(self::SCAN, 'a.jpg', $change);
        $this->desk->bringIn(self::SCAN, 'a.jpg', $change);
        self::assertCount(1, Desk::rows($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}"), 'source'));
    }

    public function testWhatIsNoPictureIsRefusedAndTheProjectStaysAsItWas(): void
    {
        foreach ([
            '' => 'empty-file',
            'a letter' => 'not-a-picture',
            "\x89PNG\r\n\x1A\nnonsense" => 'unreadable-picture',
            "GIF89a\1\0\1\0" => 'unreadable-picture',
            $this->png(16000, 16000) => 'too-large',
        ] as $bytes => $code) {
            $file = (string) tempnam(sys_get_temp_dir(), 'bad');
            file_put_contents($file, $bytes);
            [$status, $answer] = $this->desk->send($file, "../../x\0.jpg");
            unlink($file);
            self::assertIsArray($answer['error'] ?? null, (string) json_encode($answer));
            self::assertSame($code, $answer['error']['code']);
            self::assertContains($status, [413, 422]);
        }
        self::assertSame($this->desk->revision, $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}")['revision']);
    }

    /** Refused while it was being taken in, one file does not keep the next ones from coming in. */
    public function testAFileForAPlaceThatIsGoneIsRefusedAndTheNextOneComesIn(): void
    {
        for ($i = 0; $i < 4; ++$i) {
            [$status, $answer] = $this->desk->send(self::SCAN, 'a.jpg', more: ['storey' => Desk::newId()]);
            self::assertSame([422, 'gone'], [$status, \is_array($answer['error']) ? $answer['error']['code'] : null]);
        }
        $this->desk->bringIn(self::SCAN);
    }

    public function testATruncatedScanSaysSoAndCanBeTriedAgain(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'half');
        file_put_contents($file, substr((string) file_get_contents(self::SCAN), 0, 500_000));
        $this->desk->bringIn($file);
        unlink($file);
        $page = $this->desk->imported();
        self::assertSame('failed', $page['state']);
        self::assertIsString($page['message']);
        self::assertStringContainsString('ends too early', $page['message']);
        $this->desk->ask('import-page', $this->desk->page);
        self::assertSame('failed', $this->desk->imported()['state']);
    }

    public function testStoppingLeavesNoPartialFilesAndItCanGoOn(): void
    {
        $this->desk->bringIn(self::SCAN);
        self::assertSame('stopped', $this->desk->stop('import-page', $this->desk->page));
        usleep(700_000);
        self::assertSame('', $this->desk->folder());
        $this->desk->ask('import-page', $this->desk->page);
        self::assertSame('done', $this->desk->imported()['state']);
    }

    public function testTwoKnownLengthsTrueTheDrawingAndTheFirstFitCarriesTheTracing(): void
    {
        $this->desk->bringIn(self::SCAN);
        // Traced over the guess, corner to corner of the outer face.
        [$a, $b] = [[640.3, 1845.8], [2718.47, 1796.1]];
        $chain = $this->desk->chain([self::overGuess(...$a), self::overGuess(...$b)]);
        $this->desk->change([$chain['operation']]);
        $state = $this->desk->change($this->desk->knownLength([$a, $b], "43' 3 11/16\""));
        [$fit] = Desk::rows($state, 'fit');
        self::assertFalse($fit['values']['isGuess']);
        $nodes = array_column(Desk::rows($state, 'node'), 'values', 'id');
        [$p, $q] = [$nodes[$chain['nodes'][0]], $nodes[$chain['nodes'][1]]];
        self::assertIsNumeric($p['x']);
        self::assertIsNumeric($p['y']);
        self::assertIsNumeric($q['x']);
        self::assertIsNumeric($q['y']);
        self::assertEqualsWithDelta(13200.0, hypot($q['x'] - $p['x'], $q['y'] - $p['y']), 1.0, 'The wall went along with the picture.');
        self::assertIsArray($state['fits']);
        self::assertIsArray($state['fits'][0]);
        self::assertEqualsWithDelta(6.35, $state['fits'][0]['mmPerPixel'], 0.01);
        // A later fit leaves the tracing where it is.
        $later = $this->desk->change($this->desk->knownLength([$a, [$a[0] - 32.4, $a[1] - 1354]], '8 600'));
        self::assertSame([], Desk::rows($later, 'node'));
        // Statements that cannot be used are refused in words, and the fit stays.
        self::assertSame('coincident-picks', $this->desk->refused(422, $this->desk->knownLength([$a, $a], '100'))['code']);
        self::assertSame('unreadable-length', $this->desk->refused(422, $this->desk->knownLength([$a, $b], 'wide'))['code']);
        self::assertSame('length-not-positive', $this->desk->refused(422, $this->desk->knownLength([$a, $b], '0'))['code']);
    }

    /**
     * Where a pixel lies while nothing is known: 1:100 from 200 per inch, the page's lower left corner at the origin.
     *
     * @return array{float, float}
     */
    private static function overGuess(float $x, float $y): array
    {
        return [$x * 12.7, (2339.0 - $y) * 12.7];
    }

    /** A PNG's head with a size, and no pixels. */
    private function png(int $width, int $height): string
    {
        $chunk = static fn (string $type, string $data): string => pack('N', \strlen($data)).$type.$data.pack('N', crc32($type.$data));

        return "\x89PNG\r\n\x1A\n".$chunk(
            'IHDR',
            pack('NNCCCCC', $width, $height, 8, 0, 0, 0, 0),
        ).$chunk('IDAT', (string) gzcompress('')).$chunk('IEND', '');
    }
}
