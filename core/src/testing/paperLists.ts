/** A practitioner's list as it stands on paper, and what it is for. */
export interface PaperList {
  readonly name: string;
  readonly lines: string;
}

/** Lists of the academy as people write them: short, with their own words, a typing slip, coaches' parts and rounds. */
export const PAPER_LISTS: readonly PaperList[] = [
  {
    name: 'ankle at home, ski mountaineering',
    lines: `walk or jog 3 min before
ankle rocks kneeling 2x10 L only
calf raise 2x15 bent knee each side
heel raises off step, slow, L 3x8-10 / R 2x8-10
towel scrunch 2 min
1 leg stand eyes shut 3 x 30s each
band out/in 20 each
hop the line 2x20
calf stretch wall
hold 30 s
Anwen's foot thing with the marble 1 min
ice if sore`,
  },
  {
    name: 'climbing, before the wall',
    lines: `Get warm (4 min):
easy jog 2 min
star jumps 2 x 20
arm circles 10 each way

Shoulders and hands:
wall slides 2x8
scap pulls 2x6
band pull aparts 15
finger extension band 2x12
finger hook 3 x 10 s, half effort
high steps onto a foothold 6 each
Coach: traverse on big holds 2:30`,
  },
  {
    name: 'kayak, shed before water',
    lines: `1. jumping jacks 45 s
2. open books 6 each
3. thread the needle 6/side
4. scapular push ups on all fours 2x10
5. band external rotation 2x12 each
6. side plank 20-30s L/R
7. seated trunk turns 10 each side
8. paddle strokes sitting, empty hands 1 min
9. paddle stroke with a stick 2 x 40 s
10. boat to the water, helmet`,
  },
  {
    name: 'alpine ski, evening strength',
    lines: `warm up bike easy 5 min
goblet squat 3x8, 3-1-1, rest 60s
split squats 3x8 each leg rest 45 s
hamstring curl slider 3 x 6-8
hip thrust on bench 3x10
wall sit 2x45s
lateral step downs 2 x 10 each
side plank 3x30s each
rest 2 min, water
box drop landing 3x5
nordic 2x4
log it`,
  },
  {
    name: 'trail running, circuit on the grass',
    lines: `Warm up:
easy jog 3 min
leg swings front 10 each
high knees 30 s

3 rounds, 60 s between rounds:
step ups 10 each
single leg bridge 8 each
calf raises single leg 12 each
side plank 20 s each

Finish:
strides 60 % 4 x 60 m
walk down 2 min`,
  },
  {
    name: 'biathlon, prone shooting shoulders',
    lines: `cat cow 8
bird dogs 2x6 each
prone Y raise 2 x 10
prone t raise 2x10
chin nods lying 10
breathing reset 90 s
dead bug 2x8
thoracic rotation on all fours 8 each
rifle dry holds with coach 3 min`,
  },
  {
    name: 'children, group of ten to twelve',
    lines: `Animal warm up:
bear crawl 2x20 s
star jumps 20
mirror steps 1 min

30/15 x 2
bird dog
bridge
single leg balance with ball catch
plank shoulder taps

Game: tag on one leg 3 min
drink`,
  },
  {
    name: 'boulderer, sore finger',
    lines: `wrist circles 10 both ways
finger flicks 2 x 20
repeated fist squeeze 20
rice bucket 3 min
wrist extension hold with weight 5x10s
forearm turns 10 each
push ups as many as clean up to 15
dead hang 3 x 10 s rest 60s`,
  },
  {
    name: 'sprint, every minute',
    lines: `skip in place 60s
A skips 2x20 m
leg swings front back 10 ea

every minute for 6 min:
pogo jumps 15
snap downs 4

build up run 3 x 60 m
first start with the group`,
  },
  {
    name: 'paraglider and hiker, back at the hotel',
    lines: `pelvic tilts x10
cat camel x 8
hip flexor stretch 30 s each
figure 4 stretch 30s each
legs up the wall 5 min
breathing, long out 2 min`,
  },
  {
    name: 'throwers at the gate, called in',
    lines: `brisk walk 1 min
arm circles small fast 20
band diagonal 8
push up plus 8
throwing path without a ball 6
light ball wall throw 10
throws: 8 at 80 %, 4 at 90 %`,
  },
  {
    name: 'return to running, with slips of the pen',
    lines: `gluet bridge 2x12
clamshels band 2x15 each
mosnter walk thing 10 steps each way
single leg heel raise 3x 12-15 ea
box squat 2 x 8 hold 3s
squat 2x10
Nordic hamstring lower 2x3 only if no pain
run/walk 6x(1/1)
stretch whatever is tight`,
  },
];
