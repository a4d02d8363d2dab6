export const laneColours = ['#f0a63a', '#5fc7c0', '#e57a92', '#a99be0', '#9dbf7a', '#e8dcc2'];
